import { randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import type { FirstAccount, NewPerson, SignIn } from '@radiant/contract';
import { Op, type Sequelize, Transaction } from 'sequelize';
import { ProblemException } from '../common/problem.filter.js';
import { Person, Practice } from '../database/database.js';
import { DATABASE } from '../database/database.module.js';
import type { SignedIn } from './session.js';
import { SignInTries } from './sign-in-tries.js';

/** Argon2id with the memory and rounds of OWASP's password storage advice (from memory): 19 MiB, 2 passes. */
const ARGON2ID = { memoryCost: 19456, timeCost: 2, parallelism: 1 } as const;

@Injectable()
export class PeopleService {
  /** Checked against when the address is unknown, so that both answers take equally long. */
  private readonly nobody = hash('nobody has this password', ARGON2ID);

  constructor(
    @Inject(DATABASE) private readonly db: Sequelize,
    private readonly tries: SignInTries,
  ) {}

  async isEmpty(): Promise<boolean> {
    return (await Person.count()) === 0;
  }

  async byId(id: string): Promise<SignedIn | undefined> {
    const person = await Person.findByPk(id);
    return person ? this.describe(person) : undefined;
  }

  /** @throws ProblemException 401 without telling which part was wrong, 429 after repeated wrong tries */
  async signIn(input: SignIn, ip: string): Promise<SignedIn> {
    const email = input.email.toLowerCase();
    const key = `${email} ${ip}`.slice(0, 200);
    const waitMs = await this.tries.waitMs(key);
    if (waitMs > 0) throw slowedDown(waitMs);
    const person = await Person.findOne({ where: { email } });
    const right = await verify(person?.passwordHash ?? (await this.nobody), input.password);
    if (!person || !right) {
      await this.tries.failed(key);
      throw new ProblemException(401, 'Not signed in', 'The address or the password is wrong.');
    }
    await this.tries.forget(key);
    return this.describe(person);
  }

  /** Makes the first practice and its dentist. @throws ProblemException 403 once anybody exists */
  async first(input: FirstAccount): Promise<SignedIn> {
    // Serializable: two first accounts at the same moment can't both find the house empty.
    return this.db.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.SERIALIZABLE }, async (transaction) => {
      if ((await Person.count({ transaction })) > 0) throw new ProblemException(403, 'Not allowed', 'The first account has been made; sign in.');
      const practice = await Practice.create({ id: randomUUID(), name: input.practice }, { transaction });
      const person = await Person.create({ ...(await this.row(input, practice.id)), role: 'dentist' }, { transaction });
      return { ...(await this.describe(person, practice)) };
    });
  }

  /** Adds a person to a practice. @throws ProblemException 422 when the address is taken */
  async add(input: NewPerson, practiceId: string): Promise<SignedIn> {
    if (await Person.findOne({ where: { email: { [Op.eq]: input.email.toLowerCase() } } })) {
      throw new ProblemException(422, 'Not accepted', 'This address can’t be used.', { errors: [{ field: 'email', message: 'This address can’t be used.' }] });
    }
    return this.describe(await Person.create({ ...(await this.row(input, practiceId)), role: input.role }));
  }

  async colleagues(practiceId: string): Promise<Pick<SignedIn, 'id' | 'name' | 'role'>[]> {
    const rows = await Person.findAll({ where: { practiceId }, order: [['name', 'ASC']] });
    return rows.map(({ id, name, role }) => ({ id, name, role }));
  }

  private async row(input: { name: string; email: string; password: string }, practiceId: string) {
    return { id: randomUUID(), practiceId, name: input.name, email: input.email.toLowerCase(), passwordHash: await hash(input.password, ARGON2ID) };
  }

  private async describe(person: Person, practice?: Practice): Promise<SignedIn> {
    const own = practice ?? (await Practice.findByPk(person.practiceId));
    return { id: person.id, name: person.name, role: person.role, practice: own?.name ?? '', practiceId: person.practiceId };
  }
}

function slowedDown(waitMs: number): ProblemException {
  const minutes = Math.max(1, Math.ceil(waitMs / 60000));
  return new ProblemException(429, 'Too many tries', `Too many wrong tries; wait ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}.`);
}
