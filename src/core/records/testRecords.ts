import { filled, type Given } from '../model/testFilled';
import { RECORD_SCHEMAS, type RecordData, type RecordKind } from './recordSchemas';

const STANDARD = {
  id: 'standard-1',
  name: 'Creek',
  edgeMm: 140,
  portMm: 70,
  widthMm: 56,
  depthMm: 6,
  section: 'trapezoid',
  bankSlope: 1,
  levelMm: 15,
  bankMm: 18,
  toleranceMm: 0.5,
  blendMm: 11,
  kerfMm: 0.4,
  gaugeLabel: 'C1',
};

/** What the fields of a record have to say together. */
export const GIVEN: Partial<Record<RecordKind, Given>> = {
  product: {
    cureModel: 'two-part',
    recoatOpensMinutes: 241,
    recoatClosesMinutes: 962,
    demouldMinutes: 1443,
    fullCureMinutes: 4324,
  },
  set: { standards: [STANDARD] },
  design: { joints: [{ edge: 'east', standard: STANDARD }] },
};

/** A record of which every field is filled with a value of its own. */
export const filledRecord = <K extends RecordKind>(kind: K): RecordData<K> =>
  RECORD_SCHEMAS[kind].parse(filled(RECORD_SCHEMAS[kind], GIVEN[kind])) as RecordData<K>;
