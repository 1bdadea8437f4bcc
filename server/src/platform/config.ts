import 'reflect-metadata';
import { plainToInstance, Transform } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsOptional, IsString, IsUrl, Matches, Max, Min, MinLength, validateSync } from 'class-validator';

const toNumber = ({ value }: { value: unknown }) => (typeof value === 'string' ? Number(value) : value);
const toBoolean = ({ value }: { value: unknown }) =>
  value === '1' || value === 'true' ? true : value === '0' || value === 'false' ? false : value;

/** Everything that the environment decides. Read once at start; see docs/operating.md for each name. */
export class Config {
  @IsString() DATABASE_HOST = '127.0.0.1';
  @Transform(toNumber) @IsInt() @Min(1) @Max(65535) DATABASE_PORT = 3306;
  @IsString() @MinLength(1) DATABASE_USER: string;
  @IsString() DATABASE_PASSWORD: string;
  @IsString() @MinLength(1) DATABASE_NAME = 'vectrum';
  /** With fewer, a request that needs a second connection while it holds its first could wait for itself. */
  @Transform(toNumber) @IsInt() @Min(4) @Max(200) DATABASE_CONNECTIONS = 20;
  @IsString() VECTRUM_HOST = '127.0.0.1';
  @Transform(toNumber) @IsInt() @Min(0) @Max(65535) VECTRUM_PORT = 4600;
  /** Where phones are served over HTTPS, which camera and offline work need; nought where a proxy in front does that. */
  @Transform(toNumber) @IsInt() @Min(0) @Max(65535) VECTRUM_HTTPS_PORT = 0;
  /** Keeps the certificate that is made at the first start, and the authority that phones are told to trust. */
  @IsOptional() @IsString() VECTRUM_TLS_DIR?: string;
  /** Shows the made-up sign-ins and the practice scanner. */
  @Transform(toBoolean) @IsBoolean() VECTRUM_DEMO = false;
  /** Where files of orders are put, a folder for each channel; left out, nothing is looked for. */
  @IsOptional() @IsString() ORDER_FOLDER?: string;
  /** Where the demo's outside world answers; its shop and carriers are set up with this address. */
  @IsOptional() @IsUrl({ require_protocol: true, require_tld: false }) VECTRUM_OUTSIDE_URL?: string;
  /** How people reach this house from their mail and their phones, such as https://stores.example.org. */
  @IsOptional() @IsUrl({ require_protocol: true, require_tld: false }) VECTRUM_URL?: string;
  @Transform(toBoolean) @IsBoolean() VECTRUM_SECURE_COOKIES = false;
  @Transform(toNumber) @IsInt() @Min(1) @Max(720) SESSION_HOURS = 14;
  @IsOptional()
  @IsUrl({ protocols: ['smtp', 'smtps'], require_protocol: true, require_tld: false })
  SMTP_URL?: string;
  @Matches(/^([^<>@\r\n]+<[^<>@\s]+@[^<>@\s]+>|[^<>@\s]+@[^<>@\s]+)$/, {
    message: 'MAIL_FROM is an e-mail address, such as stores@example.org or Stores <stores@example.org>',
  })
  MAIL_FROM = 'stores@localhost';
  /** host:port of the demo's printer, which takes PDF over raw TCP; printers of a real house are kept in Setup. */
  @IsOptional() @Matches(/^[^\s:/]+:([1-9]\d{0,4})$/, { message: 'PRINTER is host:port, such as 192.168.1.40:9100' }) PRINTER?: string;
  @IsOptional() @Matches(/^[^\s:/]+:([1-9]\d{0,4})$/, { message: 'SCALE is host:port, such as 192.168.1.41:4001' }) SCALE?: string;
  /** Where figures about the server are told in OpenMetrics text, on this machine alone; nought where nobody asks. */
  @Transform(toNumber) @IsInt() @Min(0) @Max(65535) METRICS_PORT = 0;
  @IsString() METRICS_HOST = '127.0.0.1';
  @IsIn(['fatal', 'error', 'warn', 'info', 'debug', 'silent']) LOG_LEVEL = 'info';
}

/** Raised where the environment does not make sense; the message names each variable at fault. */
export class ConfigError extends Error {}

/** Reads and checks the environment. Unknown variables are ignored; throws ConfigError. */
export function readConfig(env: NodeJS.ProcessEnv): Config {
  const known = Object.keys(
    Object.assign(new Config(), {
      DATABASE_USER: '',
      DATABASE_PASSWORD: '',
      SMTP_URL: '',
      PRINTER: '',
      SCALE: '',
      VECTRUM_OUTSIDE_URL: '',
      VECTRUM_URL: '',
      VECTRUM_TLS_DIR: '',
      ORDER_FOLDER: '',
    }),
  );
  const given = Object.fromEntries(known.flatMap((key) => (env[key] === undefined ? [] : [[key, env[key]]])));
  const config = plainToInstance(Config, given, { exposeDefaultValues: true });
  const faults = validateSync(config);
  if (faults.length > 0) {
    const lines = faults.map((f) => `${f.property}: ${Object.values(f.constraints ?? {}).join('; ')}`);
    throw new ConfigError(`The environment is not complete. ${lines.join('. ')}.`);
  }
  return config;
}
