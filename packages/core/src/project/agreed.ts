/** Settings of a project's sheet that its files are held to: what was agreed for each folder. */
import { parentOf } from '../listing/entry';
import { extensionOf } from '../listing/extension';
import type { PlannedLine } from '../template/expansion';
import type { Setup } from '../template/node';
import { readSetting, type SettingFact } from '../template/settings';

export interface Agreed {
  readonly label: string;
  readonly fact: SettingFact;
  /** As it was chosen for the project. */
  readonly value: string;
  /** Nodes of the folders it holds in; `null` for all. */
  readonly within: ReadonlySet<string> | null;
}

const PICTURES = ['avi', 'm2ts', 'm4v', 'mkv', 'mov', 'mp4', 'mpeg', 'mpg', 'mts', 'mxf', 'ogv', 'webm', 'wmv'];
const SOUNDS = ['aac', 'aif', 'aiff', 'bwf', 'caf', 'flac', 'm4a', 'mp3', 'ogg', 'opus', 'w64', 'wav'];
const STILLS = ['avif', 'bmp', 'dpx', 'exr', 'gif', 'heic', 'jp2', 'jpeg', 'jpg', 'png', 'tif', 'tiff', 'webp'];
const SCENES = ['dae', 'usda'];

const ANYWHERE: Readonly<Record<SettingFact, ReadonlySet<string>>> = {
  frameRate: new Set(PICTURES),
  pictureSize: new Set(PICTURES),
  soundRate: new Set([...SOUNDS, ...PICTURES]),
  units: new Set(SCENES),
};
/** Stills are of all sizes, but for those in folders that are named for it. */
const SIZED_STILLS: ReadonlySet<string> = new Set([...PICTURES, ...STILLS]);

export class AgreedSettings {
  private readonly all: readonly Agreed[];
  private readonly byFolder = new Map<string, readonly Agreed[]>();

  /** @param chosen - by the setting's label; what is not among them is as usual */
  constructor(
    setup: Setup | undefined,
    chosen: Readonly<Record<string, string>>,
    private readonly planned: (path: string) => PlannedLine | undefined,
  ) {
    this.all = (setup?.settings ?? []).flatMap(({ label, value, fact, within }): Agreed[] => {
      const agreed = Object.hasOwn(chosen, label) ? (chosen[label] ?? value) : value;
      if (fact === undefined || readSetting(fact, agreed) === null) return [];
      return [{ label, fact, value: agreed, within: within === undefined ? null : new Set(within) }];
    });
  }

  /** What a file of this name, in a folder of the plan, can be held to. */
  of(folder: PlannedLine, name: string): readonly Agreed[] {
    if (this.all.length === 0) return this.all;
    const here = this.in(folder);
    if (here.length === 0) return here;
    const ext = extensionOf(name, new Set());
    return here.filter(({ fact, within }) =>
      (fact === 'pictureSize' && within !== null ? SIZED_STILLS : ANYWHERE[fact]).has(ext),
    );
  }

  private in(folder: PlannedLine): readonly Agreed[] {
    const known = this.byFolder.get(folder.key);
    if (known !== undefined) return known;
    const nodes = new Set<string>();
    for (let at: PlannedLine | undefined = folder; at !== undefined; at = this.above(at)) nodes.add(at.node);
    const here = this.all.filter(({ within }) => within === null || [...within].some((node) => nodes.has(node)));
    this.byFolder.set(folder.key, here);
    return here;
  }

  private above({ path }: PlannedLine): PlannedLine | undefined {
    return path === '' ? undefined : this.planned(parentOf(path));
  }
}
