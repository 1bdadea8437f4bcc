import { useQuery } from '@tanstack/react-query';
import { useAct } from '../api/use-act';
import { key } from '../api/keys';
import { api, ask, type Dto } from '../api/client';
import { kept } from './kept';

/** What came too late to be booked and waits for an answer. */
export const useQuestions = () =>
  useQuery({ queryKey: key('questions'), queryFn: () => kept('questions', () => ask(api.GET('/api/floor/questions'))) });

/** Answers one. */
export function useAnswer() {
  return useAct({
    act: ({ id, answer }: { id: string; answer: Dto['AnswerQuestionDto']['answer'] }, once) =>
      ask(api.POST('/api/floor/questions/{id}/answer', { params: { path: { id } }, body: { answer }, headers: once })),
  });
}
