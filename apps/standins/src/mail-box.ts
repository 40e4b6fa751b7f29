import { type AddressObject, simpleParser } from 'mailparser';
import { SMTPServer } from 'smtp-server';

export interface Mail {
  readonly id: number;
  readonly at: string;
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

/** Older mail is dropped: this is a stand-in, not an archive. */
const MOST_MAILS = 200;
const LARGEST_MAIL = 1_000_000;

/** A mail box that takes whatever is handed over on loopback, and delivers nothing anywhere. */
export class MailBox {
  private readonly mails: Mail[] = [];
  private nextId = 1;
  private readonly server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    size: LARGEST_MAIL,
    disableReverseLookup: true,
    logger: false,
    onData: (stream, _session, callback) => {
      simpleParser(stream).then(
        (mail) => {
          this.mails.push({
            id: this.nextId++,
            at: (mail.date ?? new Date(0)).toISOString(),
            from: addressText(mail.from),
            to: addressText(mail.to),
            subject: mail.subject ?? '',
            text: mail.text ?? '',
          });
          if (this.mails.length > MOST_MAILS) this.mails.shift();
          callback();
        },
        (error: unknown) => callback(error instanceof Error ? error : new Error(String(error))),
      );
    },
  });

  /** Newest first. */
  list(): readonly Mail[] {
    return [...this.mails].reverse();
  }

  /** @returns the port it listens on, on loopback */
  listen(port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.server.once('error', reject);
      this.server.on('error', () => undefined); // a client that breaks off is no fault of the box
      const net = this.server.listen(port, '127.0.0.1', () => {
        const address = net.address();
        resolve(typeof address === 'object' && address !== null ? address.port : port);
      });
    });
  }

  close(): Promise<void> {
    return new Promise((resolve) => this.server.close(() => resolve()));
  }
}

function addressText(address: AddressObject | AddressObject[] | undefined): string {
  return [address ?? []]
    .flat()
    .map((one) => one.text)
    .join(', ');
}
