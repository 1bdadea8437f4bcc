import { IsBoolean, IsInt, IsOptional, Matches, Max, Min } from 'class-validator';

const CLOCK = /^([01]\d|2[0-3]):[0-5]\d$/;
const CLOCK_SAYS = 'Write the time as 07:30';

/** A rule by which orders are sent to picking every working day. */
export class DailyRunDto {
  id: number;
  siteId: number;
  site: string;
  /** By the clock of the site. */
  runsAt: string;
  /** What must catch this van, by the clock of the site, goes; null: all that leaves on the day. */
  vanAt: string | null;
  channelId: number | null;
  channel: string | null;
  /** Only orders of so few stops; null where any number will do. */
  mostStops: number | null;
  /** Rounds are sorted at a wall. */
  pooled: boolean;
  active: boolean;
  /** Whoever has set it up: it is done in their name. */
  person: string;
  lastAt: Date | null;
  lastSays: string | null;
  version: number;
}
export class RunChannelDto {
  id: number;
  name: string;
}
/** The rules, and what there is to choose from in them. */
export class DailyRunsDto {
  runs: DailyRunDto[];
  channels: RunChannelDto[];
}
export class EditDailyRunDto {
  @IsInt() siteId: number;
  @Matches(CLOCK, { message: CLOCK_SAYS }) runsAt: string;
  @IsOptional() @Matches(CLOCK, { message: CLOCK_SAYS }) vanAt: string | null;
  @IsOptional() @IsInt() channelId: number | null;
  @IsOptional() @IsInt() @Min(1) @Max(50) mostStops: number | null;
  @IsBoolean() pooled: boolean;
  @IsBoolean() active: boolean;
}
export class DailyRunIdDto {
  id: number;
}
/** What a rule would send now. */
export class RunPreviewDto {
  rounds: RunRoundDto[];
  /** Orders that it would leave, with why. */
  left: RunLeftDto[];
}
export class RunRoundDto {
  orders: string[];
  stops: number;
  units: number;
  metres: number;
}
export class RunLeftDto {
  order: string;
  customer: string;
  why: string;
}
