import { Injectable } from '@nestjs/common';
import { createTransport, type Transporter } from 'nodemailer';
import type SMTPTransport from 'nodemailer/lib/smtp-transport/index.js';
import { Config } from './config.js';

export interface Mail {
  /** Becomes the Message-ID, so that a mail sent twice can be told from two mails. */
  id: string;
  to: string;
  subject: string;
  text: string;
  /** The same words as a page, and the pictures in it; absent: words only. */
  html?: string;
  inline?: { cid: string; content: Buffer }[];
  /** PDF unless another type is named. */
  attachments: { filename: string; content: Buffer; contentType?: string }[];
}

/** A server that greets and then says nothing is given up. In milliseconds. */
const LIMITS = { connectionTimeout: 5_000, greetingTimeout: 5_000, socketTimeout: 10_000, dnsTimeout: 5_000 };

/** Sends mail over SMTP. Throws where the server does not take it; without a server nothing is sent and the outbox says so. */
@Injectable()
export class Mailer {
  private transport: Transporter | undefined;

  constructor(private readonly config: Config) {}

  async send(mail: Mail): Promise<void> {
    if (!this.config.SMTP_URL) throw new Error('No mail server is set. Set SMTP_URL');
    this.transport ??= createTransport({ url: this.config.SMTP_URL, ...LIMITS } as SMTPTransport.Options);
    await this.transport.sendMail({
      from: this.config.MAIL_FROM,
      to: mail.to,
      subject: mail.subject,
      text: mail.text,
      messageId: `<${mail.id}@vectrum.local>`,
      ...(mail.html ? { html: mail.html } : {}),
      attachments: [
        ...mail.attachments.map((a) => ({ contentType: 'application/pdf', ...a })),
        ...(mail.inline ?? []).map((i) => ({ ...i, filename: `${i.cid}.png`, contentType: 'image/png' })),
      ],
    });
  }
}
