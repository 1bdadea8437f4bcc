import { useQueryClient } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { api, ask } from '../api/client';
import { forgetDrafts } from '../ui/record/unkept';
import { forgetAnswers } from '../flow/kept';

/** Signs out and goes back to the door. */
export function useSignOut() {
  const client = useQueryClient();
  const navigate = useNavigate();
  return async (to = '/sign-in') => {
    await ask(api.DELETE('/api/session'));
    await forgetAnswers();
    forgetDrafts();
    client.clear();
    void navigate(to);
  };
}
