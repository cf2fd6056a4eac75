import { deliveredAs, deliveriesOf, isLate } from '../../project/deliveries';
import { rule } from '../rule';

/** What the template says is due, whose day is over, and that is not there. What has no day is never late. */
export const missingDelivery = rule({
  code: 'missing-delivery',
  weight: 'must',
  about: 'folder',
  params: { name: 'text', folder: 'text', by: 'text', entry: 'text?' },
  remedy: { act: 'none' },
  end: ({ rules, again, unread }) => {
    const { now } = rules;
    if (now === undefined) return [];
    const late = deliveriesOf(rules).filter((due) => due.line.elsewhere === undefined && isLate(due, now));
    const came = deliveredAs(rules, late, again);
    return late.flatMap((due) => {
      const { key, line, delivery, entry, by } = due;
      if (came.has(due) || unread.some((path) => line.path === path || line.path.startsWith(`${path}/`))) return [];
      const params = { name: delivery.name, folder: line.path, by: by ?? '', ...(entry !== null && { entry }) };
      return [{ path: line.path, subject: `delivery ${key}`, params }];
    });
  },
});
