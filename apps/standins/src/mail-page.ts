import type { Mail } from './mail-box.js';

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };
export const escape = (text: string): string => text.replace(/[&<>"']/g, (c) => ESCAPES[c]!);

/** Links of a text can be followed; nothing else of it means anything to the browser. */
function withLinks(text: string): string {
  return escape(text).replace(/https?:\/\/[^\s<&]+/g, (link) => `<a href="${link}">${link}</a>`);
}

/** The box as a page to read. */
export function mailPage(mails: readonly Mail[]): string {
  const items = mails
    .map(
      (mail) =>
        `<article><h2>${escape(mail.subject)}</h2><p class="soft">${escape(mail.at.slice(0, 16).replace('T', ' '))} UTC · from ${escape(mail.from)} · to ${escape(mail.to)}</p><pre>${withLinks(mail.text)}</pre></article>`,
    )
    .join('\n');
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Mail box (stand-in)</title><meta http-equiv="refresh" content="5">
<style>
body { font: 15px/1.5 system-ui, sans-serif; background: #f3efe6; color: #23201b; max-width: 720px; margin: 32px auto; padding: 0 16px }
article { background: #fffdf8; border: 1px solid #ddd4c3; padding: 14px 18px; margin: 0 0 14px }
h1 { font-size: 20px } h2 { font-size: 16px; margin: 0 } .soft { color: #665f52; margin: 2px 0 10px; font-size: 13px }
pre { white-space: pre-wrap; font: 14px/1.5 Georgia, serif; margin: 0 } a { color: #a83519 }
</style>
<h1>Mail box</h1><p class="soft">A stand-in on this machine: what Sift Reel sends by mail ends here.</p>
${items || '<p>No mail yet. Invite a user, and the link arrives here.</p>'}</html>`;
}
