import { describe, expect, test } from '@jest/globals';
import { foreignIn } from './foreign';

const own = { number: '26014', client: 'QHT' };

describe('whose work a name is', () => {
  test.each([
    ['its own', { number: '26014', client: 'QHT' }, null],
    ['another number', { number: '26009', client: 'QHT' }, { number: '26009', client: '' }],
    ['another client', { number: '26014', client: 'BRO' }, { number: '', client: 'BRO' }],
    ['both', { number: '26009', client: 'BRO' }, { number: '26009', client: 'BRO' }],
    ['neither is told', { title: 'harbour' }, null],
    ['what stands for a number is a word', { number: 'draft', client: 'BRO' }, null],
    ['a number of another length', { number: '9', client: 'QHT' }, null],
  ])('%s', (_what, reading, said) => {
    expect(foreignIn(reading, own)).toEqual(said);
  });

  test('a project without a number or a client has no other’s', () => {
    expect(foreignIn({ number: '26009', client: 'BRO' }, { number: null, client: null })).toBeNull();
    expect(foreignIn({ number: '26009', client: 'BRO' }, { number: null, client: 'QHT' })).toEqual({
      number: '',
      client: 'BRO',
    });
  });
});
