/** Ways of carrying over that are kept with a template: "how we make the next one". */
import { troubleOf } from '../../app/api';
import { KeptWithTemplate } from '../../changes/kept-with-template';
import { Button } from '../../ui';
import { carryApi } from './carry-api';
import { bodyOfWay, type CarryWork } from './carry-work';

/** Single files that were taken or left belong to this project, and are not kept. */
export function KeptWays({ work: { project, said, setWay, forget } }: { work: CarryWork }) {
  const template = project.template.id;
  const { data: ways = [] } = carryApi.useCarryWaysQuery(template);
  const [drop] = carryApi.useDropCarryWayMutation();
  const [keep, keeping] = carryApi.useKeepCarryWayMutation();
  return (
    <div className="flex flex-wrap gap-2">
      <KeptWithTemplate
        label="Kept ways"
        empty="None yet. What comes of each folder, versions and words are kept; single files are not."
        ways={ways}
        onUse={(way) => setWay({ ...UNSET, ...way })}
        onForget={(name) => void drop({ template, name })}
        onKeep={async (name) => (await keep({ template, name, way: bodyOfWay(said.way) })).error === undefined}
        isKeeping={keeping.isLoading}
        trouble={keeping.isError ? troubleOf(keeping.error) : null}
      />
      <Button variant="quiet" onClick={forget}>
        Begin anew
      </Button>
    </div>
  );
}

const UNSET = { folders: {}, take: [], leave: [], version: 'restart', words: [] } as const;
