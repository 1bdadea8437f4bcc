import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

export class CustomerDto {
  code: string;
  name: string;
  email: string;
  phone: string;
  addressLine: string;
  city: string;
  postcode: string;
  country: string;
  note: string;
  /** Days within which they pay. */
  termsDays: number;
  /** Whether their orders go only whole, unless an order says otherwise. */
  wholeOnly: boolean;
  /** The rate at which everything is taxed that they buy; null where each item has its own. */
  taxCode: string | null;
  taxNumber: string;
  /** What they are invoiced in; null for the house's money. */
  currency: string | null;
  version: number;
}
export class CustomerPageDto {
  rows: CustomerDto[];
  /** How many there are in all; one more than ten thousand where there are more than that. */
  total: number;
}
export class CustomerOrderDto {
  code: string;
  state: string;
  placedAt: Date;
}
/** Another place where the customer has goods sent. */
export class CustomerAddressDto {
  @IsString() @Length(1, 80, { message: 'Say what this place is called' }) name: string;
  @IsString() @MaxLength(190) addressLine: string;
  @IsString() @MaxLength(80) city: string;
  @IsString() @MaxLength(20) postcode: string;
  @Matches(/^[A-Z]{2}$/, { message: 'A country is two capital letters, such as GB' }) country: string;
}
/** What the customer pays for one of a pack. */
export class CustomerPriceDto {
  @IsString() @Length(1, 40, { message: 'Type the SKU of the goods' }) sku: string;
  @IsInt({ message: 'Type how many pieces one holds' }) @Min(1) @Max(1_000_000) factor: number;
  @Matches(/^\d{1,10}(\.\d{1,6})?$/, { message: 'A price is a number of up to 6 decimal places' }) price: string;
}
export class CustomerSheetDto extends CustomerDto {
  addresses: CustomerAddressDto[];
  prices: CustomerPriceDto[];
  /** Orders of the account, and those that came with the customer's e-mail address, newest first. */
  orders: CustomerOrderDto[];
}
export class EditCustomerDto {
  @Matches(/^[A-Za-z0-9-]{2,20}$/, { message: 'A customer code is 2 to 20 letters, digits and hyphens' }) code: string;
  @IsString() @Length(1, 120) name: string;
  @ValidateIf((c: EditCustomerDto) => c.email !== '')
  @IsEmail({}, { message: 'Type an e-mail address, like orders@example.org' })
  email: string;
  @IsString() @MaxLength(40) phone: string;
  @IsString() @MaxLength(190) addressLine: string;
  @IsString() @MaxLength(80) city: string;
  @IsString() @MaxLength(20) postcode: string;
  @Matches(/^[A-Z]{2}$/, { message: 'A country is two capital letters, such as GB' }) country: string;
  @IsString() @MaxLength(300) note: string;
  @IsInt({ message: 'Type a number of days' }) @Min(0) @Max(365) termsDays: number;
  @IsBoolean() wholeOnly: boolean;
  @IsOptional() @IsString() @MaxLength(12) taxCode?: string | null;
  @IsOptional() @IsString() @MaxLength(30) taxNumber?: string;
  @IsOptional() @IsString() @MaxLength(3) currency?: string | null;
  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested({ each: true })
  @Type(() => CustomerAddressDto)
  addresses: CustomerAddressDto[];
  @IsArray()
  @ArrayMaxSize(2000)
  @ValidateNested({ each: true })
  @Type(() => CustomerPriceDto)
  prices: CustomerPriceDto[];
}
