import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { DataSource } from 'typeorm';
import { type Act, Acting, type Person, Reader } from '../platform/act.js';
import { Config } from '../platform/config.js';
import { one, parsed, rows } from '../platform/database/tx.js';
import { demoSignIns } from '../demo/people.js';
import { Access } from './access.js';
import { DeviceService } from './device.service.js';
import {
  BadgeSignInDto,
  DeviceDto,
  EnrolDto,
  EnrolmentDto,
  FirstOwnerDto,
  MeDto,
  NewEnrolmentDto,
  PersonDto,
  SignInDto,
  SignInPageDto,
  SiteDto,
} from './identity.dto.js';
import { PeopleService } from './people.service.js';
import { SessionService, type SignedIn } from './session.service.js';

const SESSION = 'vectrum_session';
const DEVICE = 'vectrum_device';
const TEN_YEARS_MS = 10 * 365 * 86_400_000;

const cookie = (request: Request, name: string) => (request.cookies as Record<string, string | undefined>)[name];

@Controller('api')
export class IdentityController {
  constructor(
    private readonly sessions: SessionService,
    private readonly devices: DeviceService,
    private readonly people: PeopleService,
    private readonly source: DataSource,
    private readonly config: Config,
  ) {}

  /** What the sign-in page needs: whether this house is new, which device this is, and the demo's made-up people. */
  @Get('sign-in-page')
  @Access('public')
  async signInPage(@Req() request: Request): Promise<SignInPageDto> {
    const device = await this.sessions.device(cookie(request, DEVICE));
    return {
      firstRun: await this.people.isFirstRun(),
      deviceName: device?.name ?? null,
      demo: this.config.VECTRUM_DEMO ? demoSignIns() : [],
    };
  }

  @Post('first-owner')
  @Access('public')
  @HttpCode(204)
  firstOwner(@Body() body: FirstOwnerDto): Promise<void> {
    return this.people.foundHouse(body);
  }

  @Post('session')
  @Access('public')
  @HttpCode(204)
  async signIn(@Body() body: SignInDto, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    this.remember(response, await this.sessions.signIn(body.email, body.password, cookie(request, DEVICE)));
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
      ? await one<{ name: string }>(this.source, 'SELECT name FROM device WHERE id = ?', [request.deviceId])
      : undefined;
    return {
      id: person.id,
      name: person.name,
      rights: [...person.rights].sort(),
      sites: await this.sitesOf(person),
      seesCosts: person.seesCosts,
      device: device?.name ?? null,
    };
  }

  @Get('people')
  @Access('set-up')
  async list(): Promise<PersonDto[]> {
    return (await this.people.list()).map((p) => ({ ...p, duties: parsed<string[]>(p.duties) }));
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
  async enrol(@Body() body: EnrolDto, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = await this.devices.enrol(body.code);
    response.cookie(DEVICE, token, this.cookieOptions(TEN_YEARS_MS));
  }

  @Post('devices/:id/revoke')
  @Access('set-up')
  @HttpCode(204)
  revoke(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.devices.revoke(act, id);
  }

  private sitesOf(person: Person): Promise<SiteDto[]> {
    return rows<SiteDto>(this.source, 'SELECT id, code, name FROM site WHERE id IN (?) ORDER BY id', [[0, ...person.siteIds]]);
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
