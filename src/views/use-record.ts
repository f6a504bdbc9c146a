import { useState } from 'react';
import { send } from './send';
import { useAction } from './use-action';

/**
 * One record of the shop behind its form: made once (one idempotency key for as long as the form is open), changed, retired and brought
 * back. `path` is where its kind lives, in the API under `/api` and as pages alike.
 */
export function useRecord(path: '/machines' | '/stock', id: number | null, retired: boolean) {
  const [key] = useState(() => crypto.randomUUID());
  const [saved, setSaved] = useState(false);
  const action = useAction();
  return {
    id,
    retired,
    action,
    saved,
    /** Makes the record and goes to its page; or changes it and stays. */
    save: (made: unknown, changed: unknown = made): void =>
      action.run(async () => {
        setSaved(false);
        if (id === null) {
          const record = await send<{ id: number }>(`/api${path}`, { method: 'POST', key, json: made });
          window.location.assign(`${path}/${record.id}`);
        } else {
          await send(`/api${path}/${id}`, { method: 'PUT', json: changed });
          setSaved(true);
        }
      }),
    turnRetired: (): void =>
      action.run(async () => {
        await send(`/api${path}/${id}/retired`, { method: 'PUT', json: { retired: !retired } });
        window.location.reload();
      }),
  };
}

export type RecordState = ReturnType<typeof useRecord>;
