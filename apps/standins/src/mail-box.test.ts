import { createTransport } from 'nodemailer';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { MailBox } from './mail-box.js';
import { mailPage } from './mail-page.js';

const box = new MailBox();
let port = 0;
beforeAll(async () => {
  port = await box.listen(0);
});
afterAll(() => box.close());

it('takes mail as a program hands it over (SMTP, RFC 5321, by nodemailer), and shows it newest first', async () => {
  const transport = createTransport({ host: '127.0.0.1', port });
  for (const n of [1, 2]) {
    await transport.sendMail({
      from: 'Sift Reel <sift-reel@localhost>',
      to: { name: 'Bríd Ní Cheallaigh', address: 'brid@agency.example' },
      subject: `Your way in, no. ${n}`,
      text: 'Grüße: http://127.0.0.1:4310/welcome/abc\n<script>alert(1)</script>',
    });
  }
  const [newest] = box.list();
  expect(box.list()).toHaveLength(2);
  expect(newest).toMatchObject({ subject: 'Your way in, no. 2', to: '"Bríd Ní Cheallaigh" <brid@agency.example>' });
  expect(newest!.text).toContain('Grüße: http://127.0.0.1:4310/welcome/abc');
  const page = mailPage(box.list());
  expect(page).toContain('<a href="http://127.0.0.1:4310/welcome/abc">');
  expect(page).not.toContain('<script>');
});
