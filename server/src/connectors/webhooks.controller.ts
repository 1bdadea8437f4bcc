import { Controller, Headers, HttpCode, Param, Post, Req } from '@nestjs/common';
import type { RawBodyRequest } from '@nestjs/common';
import type { Request } from 'express';
import { Access } from '../identity/index.js';
import { IntakeService } from './intake.service.js';
import { TakenInDto } from './shop-order.dto.js';

@Controller('api/channels')
export class WebhooksController {
  constructor(private readonly intake: IntakeService) {}

  /** An order from a web shop. The signature in X-Signature stands for the sign-in; a repeated order is answered as the first. */
  @Post(':code/webhook')
  @Access('public')
  @HttpCode(200)
  webhook(
    @Param('code') code: string,
    @Headers('x-signature') given: string | undefined,
    @Req() request: RawBodyRequest<Request>,
  ): Promise<TakenInDto | null> {
    return this.intake.fromWebhook(code.toUpperCase(), request.rawBody, given ?? '');
  }
}
