// Written by npm run formats from stages.ts; change that.
import type { StageGroup } from './stageGroup.js';
import type { Stage } from './stages.js';

/** What each stage is called and where it stands, in the order of the work. */
export const STAGE_ROWS: Readonly<Record<Stage, { readonly name: string; readonly group: StageGroup }>> = {
  data: {"name":"Data sheet","group":"Engine"},
  cameApart: {"name":"As it came apart","group":"Engine"},
  codes: {"name":"Grade marks","group":"Measure"},
  bores: {"name":"Main bores","group":"Measure"},
  journals: {"name":"Main journals","group":"Measure"},
  bigEnds: {"name":"Big ends","group":"Measure"},
  pins: {"name":"Crankpins","group":"Measure"},
  drawer: {"name":"Stock","group":"Select"},
  choose: {"name":"Select shells","group":"Select"},
  trial: {"name":"Trial assembly","group":"Check"},
  mainLine: {"name":"Alignment","group":"Measure"},
  runout: {"name":"Runout","group":"Measure"},
  crush: {"name":"Crush","group":"Check"},
  endPlay: {"name":"End play","group":"Check"},
  assembly: {"name":"Final assembly","group":"Build"},
  torque: {"name":"Torque","group":"Build"},
  sheet: {"name":"Build sheet","group":"Build"},
  running: {"name":"After the build","group":"Build"},
};
