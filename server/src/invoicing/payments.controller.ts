import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Access, OfTheHouse } from '../identity/index.js';
import { type Act, Acting, AskedWindow, IdDto, type Window, Windowed } from '../platform/index.js';
import { NotedPaymentDto, NotePaymentDto, PaymentPageDto, UsePaymentDto } from './invoicing.dto.js';
import { PaymentsService } from './payments.service.js';

/** What customers have paid. */
@Controller('api/payments')
@Access('invoices')
@OfTheHouse()
export class PaymentsController {
  constructor(private readonly payments: PaymentsService) {}

  @Get()
  @Windowed()
  list(@AskedWindow() window: Window): Promise<PaymentPageDto> {
    return this.payments.list(window);
  }

  /** Notes a payment; the invoices whose numbers it names are paid with it. */
  @Post()
  note(@Acting() act: Act, @Body() body: NotePaymentDto): Promise<NotedPaymentDto> {
    return this.payments.note(act, body);
  }

  /** Gives what is left of a payment to an invoice. */
  @Post(':id/use')
  @HttpCode(200)
  use(@Acting() act: Act, @Param('id', ParseIntPipe) id: number, @Body() body: UsePaymentDto): Promise<NotedPaymentDto> {
    return this.payments.use(act, id, body.invoice);
  }

  /** What is left of a payment in another currency is what the rate has done since. */
  @Post(':id/gain')
  @HttpCode(200)
  gain(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<IdDto> {
    return this.payments.gain(act, id);
  }

  /** Says that a payment never came. */
  @Post(':id/take-back')
  @HttpCode(204)
  takeBack(@Acting() act: Act, @Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.payments.takeBack(act, id);
  }
}
