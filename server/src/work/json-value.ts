import { ProblemException } from '../common/problem.filter.js';

/** What a JSON tokenizer tells. */
export interface Token {
  readonly name: string;
  readonly value?: unknown;
}

/** How large one value may become. */
export interface Extent {
  readonly values: number;
  readonly characters: number;
  readonly depth: number;
}

const tooLarge = () =>
  new ProblemException(422, 'Not accepted', 'The case file holds more in one place than belongs there.');

/** Half of a surrogate pair, which older programs let through: no text that a database keeps. */
const BROKEN = /\p{Surrogate}/gu;

/** Puts one JSON value together from tokens, within an extent. */
export class JsonValue {
  result: unknown;
  private readonly open: (Record<string, unknown> | unknown[])[] = [];
  private readonly keys: (string | undefined)[] = [];
  private text: string[] = [];
  private values = 0;
  private characters = 0;

  constructor(private readonly most: Extent) {}

  get depth(): number {
    return this.open.length;
  }

  /** Takes a token. Returns whether the value is whole. @throws ProblemException 422 when it grows beyond its extent */
  take({ name, value }: Token): boolean {
    switch (name) {
      case 'startObject':
        return this.enter({});
      case 'startArray':
        return this.enter([]);
      case 'endObject':
      case 'endArray':
        this.keys.pop();
        return this.put(this.open.pop(), true);
      case 'keyValue':
        this.keys[this.keys.length - 1] = String(value);
        this.count(String(value).length);
        return false;
      case 'startString':
        this.text = [];
        return false;
      case 'stringChunk':
        this.text.push(String(value));
        this.count(String(value).length);
        return false;
      case 'endString':
        return this.put(this.text.join('').replace(BROKEN, '\ufffd'));
      case 'numberValue':
        return this.put(Number(value));
      default:
        return this.put(value);
    }
  }

  private enter(v: Record<string, unknown> | unknown[]): boolean {
    if (this.open.length >= this.most.depth) throw tooLarge();
    this.open.push(v);
    this.keys.push(undefined);
    this.count(0);
    return false;
  }

  private put(v: unknown, closed = false): boolean {
    if (!closed) this.count(0);
    const around = this.open.at(-1);
    if (!around) {
      this.result = v;
      return true;
    }
    if (Array.isArray(around)) around.push(v);
    // An own field whatever its name: `__proto__` is a field like any other here, and is refused later like any other.
    else
      Object.defineProperty(around, this.keys.at(-1) as string, {
        value: v,
        enumerable: true,
        writable: true,
        configurable: true,
      });
    return false;
  }

  private count(characters: number): void {
    this.characters += characters;
    if (++this.values > this.most.values || this.characters > this.most.characters) throw tooLarge();
  }
}
