import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { api, ask, type Dto } from '../api/client';
import { kept } from './kept';

/** What came too late to be booked and waits for an answer. */
export const useQuestions = () =>
  useQuery({ queryKey: ['questions'], queryFn: () => kept('questions', () => ask(api.GET('/api/floor/questions'))) });

/** Answers one. */
export function useAnswer() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, answer }: { id: string; answer: Dto['AnswerQuestionDto']['answer'] }) =>
      ask(api.POST('/api/floor/questions/{id}/answer', { params: { path: { id } }, body: { answer } })),
    onSettled: () => client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'book' }),
  });
}
