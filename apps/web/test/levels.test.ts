// Which catalog a field is offered by its heading.
import { describe, expect, it } from 'vitest';
import { likeness } from '../src/features/bindings/levels.js';

describe('likeness', () => {
  it.each([
    ['Sellers', 'Seller'],
    ['Boxes', 'box'],
    ['Categories', 'Category'],
    ['Kinds of payment', 'kind of payment'],
    ['Felder', 'Feld'],
  ])('takes %s for %s: they are many and one', (many, one) => {
    expect(likeness(many, one)).toBeGreaterThanOrEqual(0.9);
    expect(likeness(one, many)).toBe(likeness(many, one));
  });
  it.each([
    ['Plan', 'Plant'],
    ['Is', 'I'],
    ['Seller', 'State'],
    ['Regional offices', 'Region'],
  ])('is not sure of %s for %s', (one, other) => {
    expect(likeness(one, other)).toBeLessThan(0.9);
  });
  it('knows the same words in other letters', () => expect(likeness('Kind of PAYMENT', ' kind of  payment')).toBe(1));
});
