import { type ArgumentsHost, BadRequestException, NotFoundException, PayloadTooLargeException } from '@nestjs/common';
import { pino } from 'pino';
import { badForm, badState, notFound, Problem } from '../src/platform/problem.js';
import { ProblemFilter } from '../src/platform/problem.filter.js';
import { refused } from '../src/platform/refused.js';
import { mustMatch } from '../src/platform/version.js';
import { mustBeAt } from '../src/platform/act.js';

function answerTo(thrown: unknown, headersSent = false) {
  const logged: string[] = [];
  const log = pino({ level: 'error' }, { write: (line: string) => void logged.push(line) });
  const sent = { status: 0, type: '', body: '', ended: false };
  const response = {
    headersSent,
    status: (n: number) => ((sent.status = n), response),
    type: (t: string) => ((sent.type = t), response),
    send: (b: string) => ((sent.body = b), response),
    end: () => ((sent.ended = true), response),
  };
  const host = {
    switchToHttp: () => ({ getRequest: () => ({ id: 'req-1', url: '/api/x' }), getResponse: () => response }),
  } as unknown as ArgumentsHost;
  new ProblemFilter(log).catch(thrown, host);
  return { ...sent, problem: sent.body ? (JSON.parse(sent.body) as Record<string, unknown>) : null, logged };
}

describe('problems', () => {
  it.each([
    [notFound('Order S-1'), 404, 'not-found'],
    [badState('S-1 is packed'), 409, 'state'],
    [badForm({ sku: 'taken' }), 400, 'form'],
    [refused({ band: 'too-many', title: '1 over', detail: 'Put it back' }), 409, 'refused'],
    [new NotFoundException(), 404, 'not-found'],
    [new PayloadTooLargeException(), 413, 'too-large'],
    [new BadRequestException('Unexpected end of JSON input'), 400, 'json'],
    [new BadRequestException('Validation failed (numeric string is expected)'), 400, 'form'],
    [new URIError('URI malformed'), 400, 'form'],
    [{ type: 'entity.too.large' }, 413, 'too-large'],
    [{ type: 'entity.parse.failed' }, 400, 'json'],
    [{ type: 'charset.unsupported', status: 415 }, 415, 'json'],
  ])('%p is answered with %i %s', (thrown, status, code) => {
    const answer = answerTo(thrown);
    expect(answer.status).toBe(status);
    expect(answer.type).toBe('application/problem+json');
    expect(answer.problem).toMatchObject({ status, code, type: `urn:vectrum:problem:${code}`, request: 'req-1' });
    expect(answer.logged).toEqual([]);
  });

  it('carry fields and the band, where there are any', () => {
    expect(answerTo(badForm({ sku: 'taken', name: 'short' })).problem).toMatchObject({
      fields: { sku: 'taken', name: 'short' },
      detail: 'taken. short',
    });
    expect(answerTo(refused({ band: 'unknown', title: 'x', detail: 'y' })).problem).toMatchObject({
      band: 'unknown',
      title: 'x',
      detail: 'y',
    });
  });

  it.each([new Error('secret at line 5'), 'text', undefined, { password: 'x' }])(
    'say nothing of an unexpected %p, but log it',
    (thrown) => {
      const answer = answerTo(thrown);
      expect(answer.problem).toMatchObject({
        status: 500,
        code: 'unknown',
        detail: 'Something went wrong on our side. Nothing was changed; try again',
      });
      expect(answer.body).not.toMatch(/secret|password/);
      expect(answer.logged).toHaveLength(1);
    },
  );

  it('end an answer that has begun', () => {
    expect(answerTo(new Error('late'), true)).toMatchObject({ ended: true, body: '' });
  });

  it('arise from old versions and foreign sites', () => {
    expect(() => mustMatch(3, 3)).not.toThrow();
    expect(() => mustMatch(3, 2)).toThrow(Problem);
    const person = { id: 1, name: 'A', rights: new Set<string>(), siteIds: [1, 2], seesCosts: false, isOwner: false };
    expect(() => mustBeAt(person, 2)).not.toThrow();
    expect(() => mustBeAt(person, 3)).toThrow('You are not set up for this site');
    expect(() => mustBeAt(person, Number.NaN)).toThrow(Problem);
  });
});
