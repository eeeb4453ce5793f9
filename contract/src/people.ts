import type { Notation } from '@radiant/core';
import { IsEmail, IsIn, IsString, Length } from 'class-validator';
import { ROLES, type Role } from './base/role.js';
import type { DraftKeeping } from './practice-settings.js';

const words = (what: string) => ({ message: what });

export class SignIn {
  @IsEmail({}, words('Write the e-mail address in full.'))
  email!: string;

  @IsString()
  @Length(1, 200, words('Write the password.'))
  password!: string;
}

/** A person who joins the practice. */
export class NewPerson {
  @IsString()
  @Length(1, 120, words('Write a name of 1 to 120 characters.'))
  name!: string;

  @IsEmail({}, words('Write the e-mail address in full.'))
  email!: string;

  @IsString()
  @Length(10, 200, words('The password needs at least 10 characters.'))
  password!: string;

  @IsIn(ROLES as unknown as string[], words('The role is dentist, assistant or technician.'))
  role!: Role;
}

/** The first account of a fresh installation: a practice and its dentist. */
export class FirstAccount {
  @IsString()
  @Length(1, 120, words('Write the practice’s name, 1 to 120 characters.'))
  practice!: string;

  @IsString()
  @Length(1, 120, words('Write a name of 1 to 120 characters.'))
  name!: string;

  @IsEmail({}, words('Write the e-mail address in full.'))
  email!: string;

  @IsString()
  @Length(10, 200, words('The password needs at least 10 characters.'))
  password!: string;
}

const PASSWORD = words('The password needs at least 10 characters.');

/** A new password of one's own. */
export class PasswordChange {
  @IsString()
  @Length(1, 200, words('Write your present password.'))
  current!: string;

  @IsString()
  @Length(10, 200, PASSWORD)
  password!: string;
}

/** A first password for a colleague who has lost theirs. */
export class FirstPassword {
  @IsString()
  @Length(10, 200, PASSWORD)
  password!: string;
}

/** Back in with a code that was made on the server's own machine. */
export class Recovery {
  @IsEmail({}, words('Write the e-mail address in full.'))
  email!: string;

  @IsString()
  @Length(16, 60, words('Write the code as it was printed.'))
  code!: string;

  @IsString()
  @Length(10, 200, PASSWORD)
  password!: string;
}

/** A person of the practice, as the others see them. */
export interface Colleague {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  /** When they left; null while they are here. */
  readonly endedAt: string | null;
}

/** Who is here. */
export interface Session {
  readonly who: Who | null;
  readonly firstAccountNeeded: boolean;
  /** With which the signed-in person's edits are sealed in the browser, base64 of 32 bytes. */
  readonly draftKey: string | null;
  readonly drafts: DraftKeeping;
}

/** The signed-in person. */
export interface Who {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
  readonly practice: string;
  /** How their practice numbers teeth, until they choose otherwise in their browser. */
  readonly notation: Notation;
}
