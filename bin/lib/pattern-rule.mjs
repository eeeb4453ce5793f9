import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { RegExpParser, visitRegExpAST } from '@eslint-community/regexpp';
import { parseSync } from '@swc/core';
import { isDisjointWith, JS, NFA } from 'refa';
import { analyse } from 'scslre';
import { inRoot, root } from './paths.mjs';

/**
 * No pattern may match one text in two ways that it then tries against each other: such a pattern takes seconds for
 * thirty characters, or for a long line. Read out of the parsed sources and judged by `scslre`, which finds a star
 * within a star and two stars that take each other's characters; a star over alternatives that can take the same text
 * is looked for here.
 */
const PARTS = ['core', 'contract', 'standins', 'server', 'web', 'bin'];

/** Whether under some star one text can be taken by one alternative, followed by more rounds, and by another. */
function alternativesMeet(source, flags) {
  let meet = false;
  const literal = new RegExpParser().parsePattern(source, 0, source.length, { unicode: flags.includes('u') });
  const automaton = (text) => {
    const { expression, maxCharacter } = JS.Parser.fromLiteral({
      source: text,
      flags: flags.replace(/[yg]/g, ''),
    }).parse({
      assertions: 'disable',
      backreferences: 'disable',
    });
    return NFA.fromRegex(expression, { maxCharacter });
  };
  visitRegExpAST(literal, {
    onQuantifierEnter({ max, element }) {
      if (max !== Number.POSITIVE_INFINITY || !('alternatives' in element) || element.alternatives.length < 2) return;
      const after = `(?:${element.alternatives.map((a) => a.raw).join('|')})*`;
      const ways = element.alternatives.map((a) => automaton(`(?:${a.raw})${after}`));
      meet ||= ways.some((w, i) => ways.slice(0, i).some((v) => !isDisjointWith(v, w)));
    },
  });
  return meet;
}

export function slowPatterns(text, tsx = false) {
  const found = [];
  const visit = (node) => {
    if (Array.isArray(node)) for (const n of node) visit(n);
    else if (node && typeof node === 'object') {
      if (node.type === 'RegExpLiteral') {
        const { reports } = analyse(
          { source: node.pattern, flags: node.flags ?? '' },
          { reportTypes: { Move: true, Self: true, Trade: true } },
        );
        const pattern = `/${node.pattern}/${node.flags ?? ''}`;
        if (alternativesMeet(node.pattern, node.flags ?? ''))
          found.push({ pattern, how: 'exponentially', type: 'Alternatives' });
        for (const r of reports)
          found.push({ pattern, how: r.exponential ? 'exponentially' : 'with the square', type: r.type });
      }
      for (const key of Object.keys(node)) if (key !== 'span') visit(node[key]);
    }
  };
  visit(parseSync(text, { syntax: 'typescript', tsx, decorators: true, target: 'es2022' }));
  return found;
}

const files = (dir) =>
  existsSync(dir)
    ? readdirSync(dir, { withFileTypes: true }).flatMap((e) =>
        e.isDirectory()
          ? e.name === 'test'
            ? []
            : files(join(dir, e.name))
          : /\.(tsx?|mjs)$/.test(e.name)
            ? [join(dir, e.name)]
            : [],
      )
    : [];

if (import.meta.main ?? process.argv[1]?.endsWith('pattern-rule.mjs')) {
  const wrong = PARTS.flatMap((part) => files(inRoot(part, part === 'bin' ? 'lib' : 'src'))).flatMap((file) =>
    slowPatterns(readFileSync(file, 'utf8'), file.endsWith('x')).map(
      (s) => `${relative(root, file)}: ${s.pattern} can take time that grows ${s.how} (${s.type})`,
    ),
  );
  if (wrong.length > 0) {
    console.error(wrong.join('\n'));
    process.exit(1);
  }
  console.log('no pattern is ambiguous');
}
