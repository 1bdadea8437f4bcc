import { Module } from '@nestjs/common';
import { SitesController } from './sites.controller.js';
import { SitesService } from './sites.service.js';

@Module({ controllers: [SitesController], providers: [SitesService] })
export class SitesModule {}
