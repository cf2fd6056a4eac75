import { useEffect } from 'react';
import { troubleOf } from '../../app/api';
import { addressFor } from '../../app/endpoints';
import { useAppDispatch } from '../../app/store';
import { numbersApi } from '../house/numbers-api';
import { numberOffered } from './start-slice';

/** The next number, held for whoever fills in the form; renewed while the page is open. One written by hand stays. */
export function useHeldNumber(
  { template, kept }: { readonly template: string; readonly kept: string },
  client: string | null,
  byHand: boolean,
): { held: string | null; holdTrouble: string | null } {
  const dispatch = useAppDispatch();
  const [hold, { data, error }] = numbersApi.useHoldNumberMutation();
  const number = data?.number;
  const [giveBack] = numbersApi.useGiveBackNumberMutation();
  useEffect(() => {
    const ask = () => void hold({ year: new Date().getFullYear(), month: new Date().getMonth() + 1, client, template });
    ask();
    const timer = setInterval(ask, 10 * 60_000);
    addEventListener('pageshow', ask);
    return () => {
      clearInterval(timer);
      removeEventListener('pageshow', ask);
    };
  }, [hold, client, template]);
  // Who leaves the form, or gets another number, gives this one back; after a start there is nothing to give.
  useEffect(() => {
    if (number === undefined) return;
    const leave = () => void fetch(addressFor('giveBackNumber', { number }), { method: 'DELETE', keepalive: true });
    addEventListener('pagehide', leave);
    return () => {
      removeEventListener('pagehide', leave);
      void giveBack(number);
    };
  }, [giveBack, number]);
  useEffect(() => {
    if (number !== undefined && !byHand) dispatch(numberOffered({ template: kept, number }));
  }, [number, byHand, kept, dispatch]);
  return { held: number ?? null, holdTrouble: error === undefined ? null : troubleOf(error) };
}
