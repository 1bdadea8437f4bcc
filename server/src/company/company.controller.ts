import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { Access } from '../identity/index.js';
import { type Act, Acting, CodeDto, IfMatch, type Person, Reader } from '../platform/index.js';
import { SettingDto, SettingsService } from '../settings/index.js';
import {
  EditSiteCalendarDto,
  MoneyDto,
  MoneyListsDto,
  NewSiteDto,
  SeriesDto,
  SetSeriesDto,
  SetSettingDto,
  SiteCalendarDto,
} from './company.dto.js';
import { CompanyService } from './company.service.js';

@Controller('api/company')
export class CompanyController {
  constructor(
    private readonly settings: SettingsService,
    private readonly company: CompanyService,
  ) {}

  @Get('settings')
  @Access('signed-in')
  list(): Promise<SettingDto[]> {
    return this.settings.list();
  }

  @Put('settings/:name')
  @Access('set-up')
  @HttpCode(204)
  set(@Acting() act: Act, @Param('name') name: string, @Body() body: SetSettingDto): Promise<void> {
    return this.settings.set(act, name, body.value);
  }

  @Get('money')
  @Access('signed-in')
  money(): Promise<MoneyListsDto> {
    return this.company.money();
  }

  @Put('money')
  @Access('set-up')
  @HttpCode(204)
  setMoney(@Acting() act: Act, @IfMatch() version: number, @Body() body: MoneyDto): Promise<void> {
    return this.company.setMoney(act, version, body);
  }

  @Get('calendars')
  @Access('signed-in')
  calendars(@Reader() person: Person): Promise<SiteCalendarDto[]> {
    return this.company.calendars(person.siteIds);
  }

  @Put('calendars/:siteId')
  @Access('set-up')
  @HttpCode(204)
  setCalendar(
    @Acting() act: Act,
    @IfMatch() version: number,
    @Param('siteId', ParseIntPipe) siteId: number,
    @Body() body: EditSiteCalendarDto,
  ): Promise<void> {
    return this.company.setCalendar(act, siteId, version, body);
  }

  @Post('sites')
  @Access('set-up')
  addSite(@Acting() act: Act, @Body() body: NewSiteDto): Promise<CodeDto> {
    return this.company.addSite(act, body);
  }

  @Get('series')
  @Access('set-up')
  series(): Promise<SeriesDto[]> {
    return this.company.series();
  }

  @Put('series')
  @Access('set-up')
  @HttpCode(204)
  setSeries(@Acting() act: Act, @Body() body: SetSeriesDto): Promise<void> {
    return this.company.setSeries(act, body);
  }
}
