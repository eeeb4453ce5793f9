import { createHash, createHmac, randomUUID } from 'node:crypto';
import { Inject, Injectable } from '@nestjs/common';
import { hash, verify } from '@node-rs/argon2';
import type { Colleague, FirstAccount, NewPerson, PasswordChange, Recovery, Role, SignIn } from '@radiant/contract';
import { Op, QueryTypes, type Sequelize, Transaction } from 'sequelize';
import { CONFIG, type Config } from '../common/config.js';
import { invalid, nothingHere, ProblemException } from '../common/problem.filter.js';
import { Person, Practice, RecoveryRow } from '../database/database.js';
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
    @Inject(CONFIG) private readonly config: Config,
    private readonly tries: SignInTries,
  ) {}

  /** The key of a person's edits in their browsers: only they are given it, and only while they are signed in. */
  draftKey(me: Pick<SignedIn, 'id'>): string {
    return createHmac('sha256', this.config.sessionSecret).update(`drafts of ${me.id}`).digest('base64');
  }

  async isEmpty(): Promise<boolean> {
    return (await Person.count()) === 0;
  }

  async byId(id: string): Promise<SignedIn | undefined> {
    const person = await Person.findByPk(id);
    return person ? this.describe(person) : undefined;
  }

  /**
   * The person of a session that began at a moment, ms; nobody when they have left or their sessions were ended since.
   */
  async inSession(id: string, since: number): Promise<SignedIn | undefined> {
    const [row] = await this.db.query<{
      id: string;
      name: string;
      role: Role;
      practice: string;
      practiceId: string;
      sessionsFrom: Date | null;
    }>(
      `SELECT p.id, p.name, p.role, q.name AS practice, p.practice_id AS practiceId, p.sessions_from AS sessionsFrom
       FROM people p JOIN practices q ON q.id = p.practice_id WHERE p.id = ? AND p.ended_at IS NULL`,
      { replacements: [id], type: QueryTypes.SELECT },
    );
    if (!row || (row.sessionsFrom && since < row.sessionsFrom.getTime())) return undefined;
    const { sessionsFrom: _, ...person } = row;
    return person;
  }

  /** @throws ProblemException 401 without telling which part was wrong, 429 after repeated wrong tries */
  async signIn(input: SignIn, ip: string): Promise<SignedIn> {
    const { person, right, tried } = await this.prove(input, ip);
    if (!person || !right) throw new ProblemException(401, 'Not signed in', 'The address or the password is wrong.');
    await this.tries.right(tried);
    return this.describe(person);
  }

  /** Counts a try before anything else, and checks the password. @throws ProblemException 429 */
  private async prove({ email, password }: SignIn, ip: string) {
    const tried = await this.tries.count(email.toLowerCase(), ip);
    if (tried.waitMs > 0) throw slowedDown(tried.waitMs);
    const person = await Person.findOne({ where: { email: email.toLowerCase(), endedAt: null } });
    const right = await verify(person?.passwordHash ?? (await this.nobody), password);
    return { person, right, tried };
  }

  /**
   * A new password of one's own; all other sessions end.
   * @throws ProblemException 422 when the present one is wrong, 429
   */
  async changePassword(me: SignedIn, { current, password }: PasswordChange, ip: string): Promise<void> {
    const own = await Person.findByPk(me.id);
    const { person, right, tried } = await this.prove({ email: own?.email ?? '', password: current }, ip);
    if (!person || !right) throw wrongField('current', 'This is not your present password.');
    await this.tries.right(tried);
    await person.update({ passwordHash: await hash(password, ARGON2ID), sessionsFrom: new Date() });
  }

  /** A first password for a colleague who has lost theirs; their sessions end. */
  async givePassword(id: string, password: string, me: SignedIn): Promise<void> {
    await (await this.colleague(id, me)).update({
      passwordHash: await hash(password, ARGON2ID),
      sessionsFrom: new Date(),
    });
  }

  /** Ends the sessions of a person of the practice. */
  async endSessions(id: string, me: SignedIn): Promise<void> {
    await (await this.colleague(id, me)).update({ sessionsFrom: new Date() });
  }

  /**
   * A person leaves: they can't sign in, and what they wrote keeps their name.
   * @throws ProblemException 422 for oneself: somebody must be left who decides
   */
  async end(id: string, me: SignedIn): Promise<void> {
    if (id === me.id)
      throw new ProblemException(
        422,
        'Not accepted',
        'Another dentist of the practice can end your account; you can’t yourself.',
      );
    await (await this.colleague(id, me)).update({ endedAt: new Date(), sessionsFrom: new Date() });
  }

  /** A person who had left comes back, with their old password. */
  async bringBack(id: string, me: SignedIn): Promise<void> {
    await (await this.colleague(id, me)).update({ endedAt: null });
  }

  private async colleague(id: string, me: SignedIn): Promise<Person> {
    const person = await Person.findOne({ where: { id, practiceId: me.practiceId } });
    if (!person) throw nothingHere();
    return person;
  }

  /**
   * Back in with a code that was made on the machine itself: good once, for a short while, and only with the address of
   * the person it was made for. All their sessions end.
   * @throws ProblemException 401 without telling which part was wrong, 429
   */
  async recover({ email, code, password }: Recovery, ip: string): Promise<SignedIn> {
    const tried = await this.tries.count(email.toLowerCase(), ip);
    if (tried.waitMs > 0) throw slowedDown(tried.waitMs);
    const person = await Person.findOne({ where: { email: email.toLowerCase(), endedAt: null } });
    const plain = code.toUpperCase().replace(/[^A-Z2-7]/g, '');
    // Taken away by its content in one statement: of two who come with one code one gets in.
    const used = await RecoveryRow.destroy({
      where: {
        personId: person?.id ?? '',
        hash: createHash('sha256').update(plain).digest('hex'),
        expiresAt: { [Op.gt]: new Date() },
      },
    });
    if (!person || used === 0)
      throw new ProblemException(401, 'Not signed in', 'The address or the code is wrong, or the code is too old.');
    await this.tries.right(tried);
    await person.update({ passwordHash: await hash(password, ARGON2ID), sessionsFrom: new Date() });
    return this.describe(person);
  }

  /** Makes the first practice and its dentist. @throws ProblemException 403 once anybody exists */
  async first(input: FirstAccount): Promise<SignedIn> {
    // Serializable: two first accounts at the same moment can't both find the house empty.
    return this.db.transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.SERIALIZABLE }, async (transaction) => {
      if ((await Person.count({ transaction })) > 0)
        throw new ProblemException(403, 'Not allowed', 'The first account has been made; sign in.');
      const practice = await Practice.create({ id: randomUUID(), name: input.practice }, { transaction });
      const person = await Person.create({ ...(await this.row(input, practice.id)), role: 'dentist' }, { transaction });
      return { ...(await this.describe(person, practice)) };
    });
  }

  /** Adds a person to a practice. @throws ProblemException 422 when the address is taken */
  async add(input: NewPerson, practiceId: string): Promise<SignedIn> {
    if (await Person.findOne({ where: { email: { [Op.eq]: input.email.toLowerCase() } } })) {
      throw wrongField('email', 'This address can’t be used.');
    }
    return this.describe(await Person.create({ ...(await this.row(input, practiceId)), role: input.role }));
  }

  async colleagues(practiceId: string): Promise<Colleague[]> {
    const rows = await Person.findAll({ where: { practiceId }, order: [['name', 'ASC']] });
    return rows.map(({ id, name, role, endedAt }) => ({ id, name, role, endedAt: endedAt?.toISOString() ?? null }));
  }

  private async row(input: { name: string; email: string; password: string }, practiceId: string) {
    return {
      id: randomUUID(),
      practiceId,
      name: input.name,
      email: input.email.toLowerCase(),
      passwordHash: await hash(input.password, ARGON2ID),
    };
  }

  private async describe(person: Person, practice?: Practice): Promise<SignedIn> {
    const own = practice ?? (await Practice.findByPk(person.practiceId));
    return {
      id: person.id,
      name: person.name,
      role: person.role,
      practice: own?.name ?? '',
      practiceId: person.practiceId,
    };
  }
}

const wrongField = (field: string, message: string) => invalid([{ field, message }]);

function slowedDown(waitMs: number): ProblemException {
  const minutes = Math.max(1, Math.ceil(waitMs / 60000));
  return new ProblemException(
    429,
    'Too many tries',
    `Too many wrong tries; wait ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}.`,
  );
}
