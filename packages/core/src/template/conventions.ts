/**
 * A template's conventions are the house's own things: an edition of one of them stands in for what the template
 * brought along.
 */
import { present } from '../element';
import type { Convention, Template } from './node';

/** The same template with these conventions, by their id in it; the others stay as they are. */
export function withConventions(template: Template, bodies: Readonly<Record<string, Convention>>): Template {
  if (!template.conventions.some((c) => Object.hasOwn(bodies, c.id))) return template;
  return {
    ...template,
    conventions: template.conventions.map((c) =>
      Object.hasOwn(bodies, c.id) ? { ...present(bodies[c.id]), id: c.id } : c,
    ),
  };
}
