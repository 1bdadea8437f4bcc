import { Global, Module } from '@nestjs/common';
import { LettersController } from './letters.controller.js';
import { CompanyLetters } from './company-letters.js';
import { MarkService } from './mark.service.js';

/** Global, since every domain that writes to customers asks for it. */
@Global()
@Module({ controllers: [LettersController], providers: [CompanyLetters, MarkService], exports: [CompanyLetters] })
export class LettersModule {}
