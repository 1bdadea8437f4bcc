import { Global, Module } from '@nestjs/common';
import { SettingsService } from './settings.service.js';

/** Global, since every domain asks for the company's choices. */
@Global()
@Module({ providers: [SettingsService], exports: [SettingsService] })
export class SettingsModule {}
