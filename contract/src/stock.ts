import 'reflect-metadata';
import { IsOptional, IsString, Length, Matches, MaxLength } from 'class-validator';
import { IsDay } from './base/holds.js';
import { words } from './sections/words.js';

/** Limits of a stock list. House limits. */
export const STOCK_LIMITS = { lots: 600, name: 120, lot: 60 } as const;

/** A pack of a material as it lies in the cupboard. */
export class StockLot {
  @IsString(words('A material has a name.'))
  @Length(1, STOCK_LIMITS.name, words(`A material’s name has 1 to ${STOCK_LIMITS.name} characters.`))
  @Matches(/\S/, words('A material has a name.'))
  name!: string;

  /** As a scanner reads it off the pack: 14 digits. */
  @IsOptional()
  @Matches(/^\d{8,14}$/, words('An item number has 8 to 14 digits.'))
  item?: string | null;

  @IsString(words('A lot is text.'))
  @MaxLength(STOCK_LIMITS.lot, words(`A lot has at most ${STOCK_LIMITS.lot} characters.`))
  lot: string = '';

  @IsOptional()
  @IsDay(words('An expiry is a calendar date.'))
  expiry?: string | null;
}
