/** Ways of packing that are kept with a template: what goes to the client, to a freelancer, to the shelf. */
import { troubleOf } from '../../app/api';
import { KeptWithTemplate } from '../../changes/kept-with-template';
import { packWaysApi } from './pack-ways-api';
import { type PackWork, wayOfSaid } from './pack-work';

export function KeptSelections({ work: { project, said, say } }: { work: PackWork }) {
  const template = project.template.id;
  const { data: ways = [] } = packWaysApi.usePackWaysQuery(template);
  const [drop] = packWaysApi.useDropPackWayMutation();
  const [keep, keeping] = packWaysApi.useKeepPackWayMutation();
  return (
    <KeptWithTemplate
      label="Kept selections"
      empty="None yet. What goes of each folder, for whom and in which form are kept; single files are not."
      ways={ways}
      onUse={({ selection, ...way }) => say({ ...way, selection: { ...selection, picked: {}, document: null } })}
      onForget={(name) => void drop({ template, name })}
      onKeep={async (name) => (await keep({ template, name, way: wayOfSaid(said) })).error === undefined}
      isKeeping={keeping.isLoading}
      trouble={keeping.isError ? troubleOf(keeping.error) : null}
    />
  );
}
