// The one judge, in the browser at once and on the server with authority.
import { depthOf } from '../cascades/index.js';
import { passes } from '../catalogs/index.js';
import type { FieldId } from '../registers/index.js';
import { clean, forbiddenCharacter, longestText, longestValue, sourceTextFault } from '../text/index.js';
import { isOfKind, joinedValues, kindLabel, valuesIn } from '../values/index.js';
import { asMeant, isNothing, partsOf, readGiven, wordsOf, type Given } from './given.js';
import { headingOf } from './headings.js';
import { meansHeld } from './held.js';
import { kindOf } from './kinds.js';
import type { Judgment, JudgeContext, JudgedField, Rule, Standing, Verdict, VerdictCode } from './models.js';
import { andList, orList, tooMany } from './list.js';
import { bringsOf, hasList } from './ties.js';

/** The rule that holds for the entry: none where its condition is not met. */
export function ruleHere({ rule }: Pick<JudgedField, 'rule'>, { entry }: Pick<JudgeContext, 'entry'>): Rule | null {
  if (!rule?.where || !entry) return rule;
  return passes(rule.where, (key) => entry[key] ?? '') ? rule : null;
}

function unfit({ typed, chosen }: Given, field: JudgedField): Verdict | undefined {
  const text = typed ?? chosen;
  // Between several values that were chosen stands what no text may hold.
  const character = forbiddenCharacter(typed === undefined && field.kind === 'several values' ? valuesIn(text).join('') : text);
  if (character) {
    const message = `The text holds the character ${character}, which cannot be stored. Type it again without it.`;
    return { verdict: 'refused', code: 'forbidden character', message, suggestions: [] };
  }
  const free = field.kind === 'several values' || (field.kind === 'text' && (!field.rule || field.rule.kind === 'plain'));
  const most = free ? longestText : longestValue;
  if (text.length <= most) return undefined;
  const message = `The text has ${text.length} characters; ${field.heading} holds at most ${most}. Shorten it.`;
  return { verdict: 'refused', code: 'length', message, suggestions: [] };
}

/** The rule's own refusal text with what was typed and the heading in their places. */
const ownWords = (text: string, typed: string, field: JudgedField): string =>
  text.replaceAll('{value}', typed).replaceAll('{field}', field.heading);

/** What is said of these is always in Dellum's words: nothing was typed that the rule could speak of. */
const ownReasons: ReadonlySet<VerdictCode> = new Set(['blank', 'wrong kind', 'parent blank', 'ambiguous', 'read only']);

function refused(
  rule: Rule | null,
  typed: string,
  field: JudgedField,
  { code, message, suggestions = [] }: Extract<Judgment, { right: false }>,
  mayConfirm = false,
): Verdict {
  const words = rule?.refusalText && !ownReasons.has(code) ? ownWords(rule.refusalText, typed, field) : message;
  const meant = suggestions.length > 0 ? ` Did you mean ${orList(suggestions)}?` : '';
  return { verdict: 'refused', code, message: words + meant, suggestions, ...(mayConfirm && { mayConfirm }) };
}

/** A value that the rule does not take: refused, stored marked once it is confirmed, or accepted as it is. */
function otherValue(
  rule: Rule,
  given: Given,
  field: JudgedField,
  found: Extract<Judgment, { right: false }>,
  context: JudgeContext,
): Verdict {
  const typed = wordsOf(field.kind, given, context.locale);
  if (rule.others === 'refuse' || found.code === 'ambiguous') return refused(rule, typed, field, found);
  const parsed = readGiven(field.kind, given, context);
  // What is no value of the field's kind cannot be stored, whatever the rule says.
  if (!parsed.ok) return refused(null, typed, field, { right: false, code: 'wrong kind', message: parsed.reason });
  if (rule.others === 'accept') return { verdict: 'taken', value: parsed.value };
  if (rule.others === 'request' || rule.others === 'add')
    return field.kind === 'several values'
      ? severalNew(rule, given, field, found, context)
      : newValue(rule, parsed.value, typed, field, found, context);
  if (!context.confirmed) return refused(rule, typed, field, found, true);
  return { verdict: 'marked', value: parsed.value, code: found.code, message: found.message };
}

/** A value that the catalog does not have here: only such a one can be asked for, or added. */
function newValue(
  rule: Rule,
  value: string,
  typed: string,
  field: JudgedField,
  found: Extract<Judgment, { right: false }>,
  context: JudgeContext,
): Verdict {
  const list = rule.kind === 'catalog' ? context.catalogs.get(rule.catalogId) : undefined;
  const blank = rule.kind === 'catalog' ? rule.parents.find((key) => context.entry && !context.entry[key]) : undefined;
  if (blank !== undefined)
    return refused(rule, typed, field, {
      right: false,
      code: 'parent blank',
      message: `“${typed}” is new. Choose ${headingOf(blank, context)} first, so that it is known where it belongs.`,
    });
  const misplaced = rule.kind === 'catalog' && list && rule.parents.length !== (rule.level ?? depthOf(list) - 1);
  if (misplaced)
    return refused(rule, typed, field, {
      right: false,
      code: 'outside',
      message: `“${typed}” is not in ${list.title}. The rule does not say under what it would belong, so it cannot be taken in here.`,
    });
  const fault = list === undefined || (found.code !== 'outside' && found.code !== 'not under parent') ? found : sourceTextFault(typed);
  if (fault) return refused(rule, typed, field, found);
  const made = asNew(rule, list!.title, clean(value), [clean(value)], found.code);
  return found.suggestions && found.suggestions.length > 0 ? { ...made, near: found.suggestions } : made;
}

/** Several values of which the catalog does not have each: every new one must be one that can be asked for, or added. */
function severalNew(
  rule: Rule,
  given: Given,
  field: JudgedField,
  found: Extract<Judgment, { right: false }>,
  context: JudgeContext,
): Verdict {
  const typed = wordsOf(field.kind, given, context.locale);
  if (rule.kind !== 'catalog') return refused(rule, typed, field, found);
  const held = new Set(valuesIn(context.held ?? ''));
  const values: string[] = [];
  const newValues: string[] = [];
  for (const each of partsOf(given, context.locale)) {
    const part = each.typed ?? each.chosen;
    const one = kindOf(rule.kind).judge(rule, each, { ...field, kind: 'text' }, context);
    // What the cell holds already stays as it stands; it was asked for when it came.
    if (one.right || held.has(part)) values.push(one.right ? one.value : part);
    else {
      const verdict = newValue(rule, part, part, field, one, context);
      if (verdict.verdict === 'refused') return verdict;
      values.push(verdict.value);
      newValues.push(verdict.value);
    }
  }
  const value = joinedValues(values);
  const many = tooMany(value, rule.picking.most);
  if (many) return refused(rule, typed, field, many);
  return asNew(rule, context.catalogs.get(rule.catalogId)!.title, value, [...new Set(newValues)], found.code);
}

/** A value with what is new in it, added or asked for as the rule says. */
function asNew(
  rule: Rule,
  title: string,
  value: string,
  newValues: readonly string[],
  code: VerdictCode,
): Extract<Verdict, { verdict: 'requested' | 'added' }> {
  const [words, are] = [andList(newValues.map((one) => `“${one}”`)), newValues.length === 1 ? 'is' : 'are'];
  if (rule.others === 'add') return { verdict: 'added', value, newValues, message: `${words} ${are} added to ${title}.` };
  return {
    verdict: 'requested',
    value,
    newValues,
    code,
    message: `${words} ${are} not in ${title} yet; its steward is asked for ${newValues.length === 1 ? 'it' : 'them'}.`,
  };
}

/** What is asked before a text that is near a standing value becomes a new one; undefined where nothing is near. */
export function askedBeforeNew(
  verdict: Verdict,
  typed: string,
): Pick<Extract<Verdict, { verdict: 'refused' }>, 'message' | 'suggestions' | 'mayConfirm'> | undefined {
  if ((verdict.verdict !== 'requested' && verdict.verdict !== 'added') || !verdict.near) return undefined;
  return { message: `“${typed}” is new. Did you mean ${orList(verdict.near)}?`, suggestions: verdict.near, mayConfirm: true };
}

function judgeBy(rule: Rule, given: Given, field: JudgedField, context: JudgeContext): Verdict {
  if (isNothing(given))
    return rule.mayBeBlank
      ? { verdict: 'taken', value: '' }
      : refused(rule, '', field, {
          right: false,
          code: 'blank',
          message: `${field.heading} must not be blank. ${hasList(rule) ? 'Pick a value.' : 'Enter a value.'}`,
        });
  const found = kindOf(rule.kind).judge(rule, given, field, context);
  if (!found.right) return otherValue(rule, given, field, found, context);
  if (rule.noRepeats && context.repeats?.(found.value))
    return otherValue(
      rule,
      given,
      field,
      { right: false, code: 'repeat', message: `Another entry holds “${found.value}” already; ${field.heading} has no repeats.` },
      context,
    );
  const { value, corrected, fills, marked } = found;
  if (marked) return { verdict: 'marked', value, code: marked.code, message: marked.message };
  return { verdict: 'taken', value, ...(corrected && { corrected }), ...(fills && { fills }) };
}

/** Whether whoever edits the entry may not change the field in it. */
export const isReadOnly = (field: Pick<JudgedField, 'rule'>, context: Pick<JudgeContext, 'entry' | 'designs'>): boolean =>
  !context.designs && ruleHere(field, context)?.readOnly === true;

/** Judges what someone types into a field, or chooses for it, now. */
export function judge(field: JudgedField, given: Given, context: JudgeContext): Verdict {
  const meant = asMeant(field.kind, given, context.locale);
  const isBlank = isNothing(meant);
  const held = context.held ?? '';
  const staysBlank = held === '' || held === meant.typed;
  if (!context.answering && (isBlank ? staysBlank : meansHeld(field, meant, held, context))) return { verdict: 'taken', value: held };
  const rule = ruleHere(field, context);
  if (isReadOnly(field, context) && !(isBlank && held === ''))
    return refused(rule, wordsOf(field.kind, meant, context.locale), field, {
      right: false,
      code: 'read only',
      message: `Only administrators change ${field.heading}.`,
    });
  const fault = unfit(meant, field);
  if (fault) return fault;
  if (rule) return judgeBy(rule, meant, field, context);
  if (isBlank) return { verdict: 'taken', value: '' };
  const parsed = readGiven(field.kind, meant, context);
  if (parsed.ok) return { verdict: 'taken', value: parsed.value };
  return { verdict: 'refused', code: 'wrong kind', message: parsed.reason, suggestions: [] };
}

const mustBeFilled = ({ mayBeBlank, others }: Rule): boolean => !mayBeBlank && others !== 'accept';

/** Whether a blank cell can be wrong in the field. */
export const blankIsWrong = ({ rule }: Pick<JudgedField, 'rule'>): boolean => rule !== null && mustBeFilled(rule);

/** Judges a stored value as it stands, blank for none; what it finds not right is *outside*. Never rewrites. */
export function stands(field: JudgedField, value: string, context: JudgeContext): Standing {
  const rule = ruleHere(field, context);
  if (value === '')
    return rule && mustBeFilled(rule) ? { right: false, code: 'blank', message: `${field.heading} must not be blank.` } : { right: true };
  if (rule) return rule.others === 'accept' ? { right: true } : kindOf(rule.kind).stands(rule, value, field, context);
  if (isOfKind(field.kind, value)) return { right: true };
  return { right: false, code: 'wrong kind', message: `“${value}” is not ${kindLabel(field.kind)}, as ${field.heading} asks for.` };
}

/** False for fields in which every stored value is right, so that nobody needs to look at them one by one. */
export function canBeOutside({ rule, kind }: JudgedField): boolean {
  if (!rule) return kind !== 'text';
  return rule.others !== 'accept' && (mustBeFilled(rule) || rule.kind !== 'plain' || kind !== 'text');
}

/** The other fields of the entry on which it depends whether a value is right, each once. */
export function readsOf(rule: Rule | null): readonly FieldId[] {
  if (!rule) return [];
  return [...new Set([...(rule.where?.conditions.map(({ field }) => field) ?? []), ...kindOf(rule.kind).reads(rule)])];
}

/** All other fields that a rule names: those it depends on, and those it fills. None of them may go while the rule stands. */
export const fieldsNamedBy = (rule: Rule | null): readonly FieldId[] => [
  ...new Set([...readsOf(rule), ...bringsOf(rule).map(({ field }) => field)]),
];
