// The one judge, in the browser at once and on the server with authority.
import { forbiddenCharacter, isBlank, longestText, longestValue } from '../text/index.js';
import { isOfKind, kindLabel, parse } from '../values/index.js';
import { catalogRule } from './catalogRule.js';
import type { JudgeContext, JudgedField, Rule, RuleKind, SentencePart, Standing, Verdict } from './models.js';

const kinds: { readonly [Kind in Rule['kind']]: RuleKind<Extract<Rule, { kind: Kind }>> } = { catalog: catalogRule };

function unfit(text: string, field: JudgedField): Verdict | undefined {
  const character = forbiddenCharacter(text);
  if (character) {
    const message = `The text holds the character ${character}, which cannot be stored. Type it again without it.`;
    return { verdict: 'refused', code: 'forbidden character', message, suggestions: [] };
  }
  const most = field.rule || field.kind !== 'text' ? longestValue : longestText;
  if (text.length <= most) return undefined;
  const message = `The text has ${text.length} characters; ${field.heading} holds at most ${most}. Shorten it.`;
  return { verdict: 'refused', code: 'length', message, suggestions: [] };
}

/** Judges what someone types into a field now. The text is what was typed, as it was typed. */
export function judge(field: JudgedField, text: string, context: JudgeContext): Verdict {
  const held = context.held ?? '';
  if (text === held || (isBlank(text) && held === '')) return { verdict: 'taken', value: held };
  const fault = unfit(text, field);
  if (fault) return fault;
  if (field.rule) return kinds[field.rule.kind].judge(field.rule, text, field, context);
  if (isBlank(text)) return { verdict: 'taken', value: '' };
  const parsed = parse(field.kind, text, context.locale);
  if (parsed.ok) return { verdict: 'taken', value: parsed.value };
  return { verdict: 'refused', code: 'wrong kind', message: parsed.reason, suggestions: [] };
}

/** Judges a stored value as it stands; what it finds not right is *outside*. Never rewrites. */
export function stands(field: JudgedField, value: string, context: JudgeContext): Standing {
  if (value === '') return { right: true };
  if (field.rule) return kinds[field.rule.kind].stands(field.rule, value, field, context);
  if (isOfKind(field.kind, value)) return { right: true };
  return { right: false, code: 'wrong kind', message: `“${value}” is not ${kindLabel(field.kind)}, as ${field.heading} asks for.` };
}

/** False for fields in which every stored value is right, so that nobody needs to look at them one by one. */
export function canBeOutside(field: JudgedField): boolean {
  return field.rule ? field.rule.others !== 'accept' : field.kind !== 'text';
}

/** The rule in one plain sentence, in parts of which some can be changed. */
export function ruleSentence(rule: Rule, titles: ReadonlyMap<string, string>): readonly SentencePart[] {
  return kinds[rule.kind].sentence(rule, titles);
}
