/** What every module stands on: configuration, database, command log, outbox, mail, problems. */
export { type Act, Acting, AtSites, clockOf, mustBeAt, partOf, type Person, Reader, type SignedRequest } from './act.js';
export { ownAddresses, servingCertificate } from './certificate.js';
export { CodeDto, IdDto } from './code.dto.js';
export { CommandLog } from './command-log.js';
export { Config, ConfigError, readConfig } from './config.js';
export { dataSourceOptions, migrate } from './database/data-source.js';
export { type OfRows, prepared, preparedRows, preparedTogether } from './database/prepared.js';
export { promisedSql } from './database/promised.js';
export { sqlList } from './database/sql.js';
export {
  inSnapshot,
  inTransaction,
  isDuplicate,
  isReferenced,
  isUnknownReference,
  likeAny,
  likeBeginning,
  num,
  one,
  parsed,
  rows,
  TryAgain,
  type Tx,
} from './database/tx.js';
export { DateIn } from './dates-in.js';
export { addDays, dayIn, daySpan, timeText } from './dates.js';
export { fieldsOf } from './field-faults.js';
export { formPipe, type Many, ManyPipe } from './many.pipe.js';
export { type Mail, Mailer } from './mailer.js';
export { Metrics } from './metrics.js';
export { nextCode, nextNumber, SERIES, seriesCode, type SeriesName, setNextNumber } from './number-series.js';
export { Outbox, type OutboxMessage } from './outbox.js';
export { phoneUrl } from './phone-url.js';
export { newLogger, PlatformModule } from './platform.module.js';
export { PostedDto } from './posted.dto.js';
export { ProblemFilter } from './problem.filter.js';
export { badForm, badState, notFound, Problem } from './problem.js';
export { AskedWindow, batches, countOf, type Listed, mapPage, type Page, pageOf, type Window, Windowed } from './page.js';
export { dayOf, isDay, textOf, wholeOf } from './query.js';
export { readBody } from './read-body.js';
export { shallow } from './shallow.js';
export { refused } from './refused.js';
export { clearByAge, clearWhere, Retention } from './retention.js';
export { signature, signatureMatches } from './signature.js';
export { fetchFile, isInside, NotToBeHad } from './fetch-file.js';
export { houseSpan, siteDay, type SiteDays, siteDays, siteSpan } from './site-day.js';
export { LOGGER } from './tokens.js';
export { IfMatch, mustMatch } from './version.js';
export { Fault, PAPER, task, Work } from './work.js';
export { claimRows, Worker, within } from './worker.js';
export { GoodEnding } from './good-ending.js';
export {
  type Change,
  find,
  findAll,
  insert,
  insertMany,
  marks,
  more,
  type NewRow,
  NEXT,
  NOW,
  remove,
  type Row,
  type TableName,
  theRow,
  update,
} from './database/write.js';
export { underLock } from './database/named-lock.js';
export { holdList, listVersion, replaceList } from './list-version.js';
export { type DocumentChange, realChanges } from './document-changes.js';
