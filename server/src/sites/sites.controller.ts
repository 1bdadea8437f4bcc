import { Body, Controller, Get, Param, Patch, Post, Query } from '@nestjs/common';
import { type Act, Acting, type Person, Reader } from '../platform/act.js';
import { CodeDto } from '../platform/code.dto.js';
import { IfMatch } from '../platform/version.js';
import { Access } from '../identity/access.js';
import { EditPlaceDto, NewPlaceDto, PlaceDto, PlaceSheetDto } from './sites.dto.js';
import { SitesService } from './sites.service.js';

@Controller('api/places')
export class SitesController {
  constructor(private readonly sites: SitesService) {}

  @Get()
  @Access('signed-in')
  list(@Reader() person: Person, @Query('search') search?: string, @Query('kind') kind?: string): Promise<PlaceDto[]> {
    return this.sites.places(person.siteIds, { search: String(search ?? ''), kind: String(kind ?? '') });
  }

  @Get(':code')
  @Access('signed-in')
  sheet(@Reader() person: Person, @Param('code') code: string): Promise<PlaceSheetDto> {
    return this.sites.sheet(person.siteIds, code.toUpperCase());
  }

  @Post()
  @Access('set-up')
  add(@Acting() act: Act, @Body() body: NewPlaceDto): Promise<CodeDto> {
    return this.sites.add(act, body);
  }

  @Patch(':code')
  @Access('set-up')
  edit(@Acting() act: Act, @IfMatch() version: number, @Param('code') code: string, @Body() body: EditPlaceDto): Promise<CodeDto> {
    return this.sites.edit(act, code.toUpperCase(), version, body);
  }
}
