import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  ParseIntPipe,
  Patch,
  Post,
  Put,
  Req,
  Res,
  StreamableFile,
  Inject,
  Optional,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { DataSource } from 'typeorm';
import { type Act, Acting, Config, IfMatch, notFound, one, type Person, phoneUrl, Reader, rows } from '../platform/index.js';
import { SettingsService } from '../settings/index.js';
import { Access } from './access.js';
import { DeviceService } from './device.service.js';
import {
  AskResetDto,
  BadgeSignInDto,
  ChangeOwnDto,
  ChooseDto,
  DeviceDto,
  DutiesDto,
  EditDeviceDto,
  AllowedDto,
  EditPersonDto,
  EnrolDto,
  EnrolmentDto,
  HandedLinkDto,
  HandedPinDto,
  MeDto,
  NewEnrolmentDto,
  PersonDto,
  PersonIdDto,
  SignInDto,
  SignInPageDto,
  SiteDto,
  TokenDto,
  WhoseTokenDto,
} from './identity.dto.js';
import { SIGN_IN_HINTS, type SignInHints } from './sign-in-hints.js';
import { cookie, DEVICE, SESSION } from './cookies.js';
import { FirstKeys } from './first-keys.service.js';
import { DoorService } from './door.service.js';
import { RIGHTS } from './duties.js';
import { PeopleService } from './people.service.js';
import { PeopleQueries } from './people.queries.js';
import { SessionService, type SignedIn } from './session.service.js';

const TEN_YEARS_MS = 10 * 365 * 86_400_000;

@Controller('api')
export class IdentityController {
  constructor(
    private readonly sessions: SessionService,
    private readonly devices: DeviceService,
    private readonly people: PeopleService,
    private readonly peopleQueries: PeopleQueries,
    private readonly door: DoorService,
    private readonly firstKeys: FirstKeys,
    private readonly settings: SettingsService,
    private readonly source: DataSource,
    private readonly config: Config,
    @Optional() @Inject(SIGN_IN_HINTS) private readonly hints: SignInHints = [],
  ) {}

  /** What the sign-in page needs: whether this house is new, which device this is, and whom it can be tried as. */
  @Get('sign-in-page')
  @Access('public')
  async signInPage(@Req() request: Request): Promise<SignInPageDto> {
    const device = await this.sessions.device(cookie(request, DEVICE));
    return {
      firstRun: await this.people.isFirstRun(),
      deviceName: device?.name ?? null,
      demo: [...this.hints],
      phoneUrl: phoneUrl(this.config),
    };
  }

  /** The authority behind this house's own certificate, for a phone to trust once. It is no secret. */
  @Get('authority.crt')
  @Access('public')
  @Header('content-type', 'application/x-x509-ca-cert')
  authority(): StreamableFile {
    const path = join(this.config.VECTRUM_TLS_DIR ?? '', 'authority.crt');
    if (!this.config.VECTRUM_TLS_DIR || !existsSync(path)) throw notFound('A certificate of this house');
    return new StreamableFile(readFileSync(path), { disposition: 'attachment; filename="vectrum-authority.crt"' });
  }

  @Post('session')
  @Access('public')
  @HttpCode(204)
  async signIn(@Body() body: SignInDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    this.remember(response, await this.sessions.signIn(body.email, body.password, cookie(request, DEVICE), request.ip ?? ''));
  }

  @Post('session/badge')
  @Access('public')
  @HttpCode(204)
  async badge(@Body() body: BadgeSignInDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    this.remember(response, await this.sessions.signInWithBadge(body.badge, body.pin, cookie(request, DEVICE)));
  }

  @Delete('session')
  @Access('public')
  @HttpCode(204)
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.sessions.signOut(cookie(request, SESSION));
    response.clearCookie(SESSION, { path: '/' });
  }

  @Get('session')
  @Access('signed-in')
  async me(@Reader() person: Person, @Req() request: Request & { deviceId?: number | null }): Promise<MeDto> {
    const device = request.deviceId
      ? await one<{ name: string; siteId: number }>(this.source, 'SELECT name, site_id AS siteId FROM device WHERE id = ?', [
          request.deviceId,
        ])
      : undefined;
    const own = await one<{ email: string | null; badge: string | null; usualDuty: string | null }>(
      this.source,
      'SELECT email, badge_code AS badge, usual_duty AS usualDuty FROM person WHERE id = ?',
      [person.id],
    );
    return {
      id: person.id,
      name: person.name,
      rights: [...person.rights].sort(),
      isOwner: person.isOwner,
      sites: await this.sitesOf(person),
      seesCosts: person.seesCosts,
      device: device?.name ?? null,
      deviceSiteId: device?.siteId ?? null,
      email: own?.email ?? '',
      badge: own?.badge ?? null,
      usualDuty: own?.usualDuty ?? null,
      units: await this.settings.get(this.source, 'units'),
      asked: await this.peopleQueries.asked(person.id),
      practice: this.hints.length > 0,
      typesCodes: await this.settings.get(this.source, 'typedCodes'),
      homeCurrency: await this.settings.get(this.source, 'homeCurrency'),
    };
  }

  /** Changes one's own password or PIN. */
  @Put('session/secrets')
  @Access('signed-in')
  @HttpCode(204)
  changeOwn(@Reader() person: Person, @Req() request: Request, @Body() body: ChangeOwnDto): Promise<void> {
    return this.door.change(person, body, cookie(request, SESSION));
  }

  /** Mails a link for a new password; the answer is the same whether the address is known or not. */
  @Post('door/reset')
  @Access('public')
  @HttpCode(204)
  askReset(@Body() body: AskResetDto): Promise<void> {
    return this.door.askReset(body.email);
  }

  @Post('door/whose')
  @Access('public')
  @HttpCode(200)
  whose(@Body() body: TokenDto): Promise<WhoseTokenDto> {
    return this.door.whose(body.token);
  }

  /** Spends a link from a mail: the password is chosen. */
  @Post('door/choose')
  @Access('public')
  @HttpCode(204)
  choose(@Body() body: ChooseDto): Promise<void> {
    return this.door.choose(body.token, body.password, body.pin);
  }

  @Get('people')
  @Access('set-up')
  list(@Reader() person: Person): Promise<PersonDto[]> {
    return this.peopleQueries.list(person);
  }

  @Post('people')
  @Access('set-up')
  invite(@Acting() act: Act, @Body() body: EditPersonDto): Promise<PersonIdDto> {
    return this.people.invite(act, body);
  }

  @Put('people/:id')
  @Access('set-up')
  @HttpCode(204)
  editPerson(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('id', ParseIntPipe) id: number,
    @Body() body: EditPersonDto,
  ): Promise<void> {
    return this.people.edit(act, id, version, body);
  }

  @Post('people/:id/remind')
  @Access('set-up')
  @HttpCode(204)
  remind(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.people.remind(act, id);
  }

  /** A link to hand over, for who has no mail or did not get one. Told once. */
  @Post('people/:id/link')
  @Access('set-up')
  @HttpCode(200)
  handLink(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<HandedLinkDto> {
    return this.firstKeys.link(act, id);
  }

  /** A PIN to their badge. Told once. */
  @Post('people/:id/pin')
  @Access('set-up')
  @HttpCode(200)
  handPin(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<HandedPinDto> {
    return this.firstKeys.pin(act, id);
  }

  @Post('people/:id/sign-out')
  @Access('set-up')
  @HttpCode(204)
  signPersonOut(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.people.signOut(act, id);
  }

  @Get('duties')
  @Access('set-up')
  async duties(): Promise<DutiesDto> {
    return { rights: Object.entries(RIGHTS).map(([right, says]) => ({ right, says })), duties: await this.people.duties() };
  }

  /** One right at a time, so that two who adjust a duty at once both do. */
  @Put('duties/:duty/rights/:right')
  @Access('set-up')
  @HttpCode(204)
  setRight(@Acting() act: Act, @Param('duty') duty: string, @Param('right') right: string, @Body() body: AllowedDto): Promise<void> {
    return this.people.setRight(act, duty, right, body.allowed);
  }

  @Patch('devices/:id')
  @Access('set-up')
  @HttpCode(204)
  editDevice(@Acting() act: Act, @Param('id', ParseIntPipe) id: number, @Body() body: EditDeviceDto): Promise<void> {
    return this.devices.edit(act, id, body);
  }

  @Get('devices')
  @Access('set-up')
  deviceList(@Reader() person: Person): Promise<DeviceDto[]> {
    return this.devices.list(person.siteIds);
  }

  @Post('devices/enrolments')
  @Access('set-up')
  openEnrolment(@Acting() act: Act, @Body() body: NewEnrolmentDto): Promise<EnrolmentDto> {
    return this.devices.openEnrolment(act, body.siteId, body.name);
  }

  @Post('devices/enrol')
  @Access('public')
  @HttpCode(204)
  async enrol(@Body() body: EnrolDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = await this.devices.enrol(body.code, request.ip ?? '');
    response.cookie(DEVICE, token, this.cookieOptions(TEN_YEARS_MS));
  }

  @Post('devices/:id/revoke')
  @Access('set-up')
  @HttpCode(204)
  revoke(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.devices.revoke(act, id);
  }

  private sitesOf(person: Person): Promise<SiteDto[]> {
    return rows<SiteDto>(this.source, 'SELECT id, code, name, time_zone AS timeZone FROM site WHERE id IN (?) ORDER BY FIELD(id, ?), id', [
      [0, ...person.siteIds],
      [0, ...person.siteIds],
    ]);
  }

  private remember(response: Response, session: SignedIn): void {
    response.cookie(SESSION, session.token, this.cookieOptions(session.hours * 3_600_000));
  }

  private cookieOptions(maxAge: number) {
    return {
      httpOnly: true,
      sameSite: 'strict' as const,
      secure: this.config.VECTRUM_SECURE_COOKIES,
      path: '/',
      maxAge,
    };
  }
}
