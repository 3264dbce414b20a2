import type { JobStage } from '@/core/records/recordSchemas';

/** The parts of a job, as its page calls them. */
export const STAGE_WORDS: Record<JobStage, string> = {
  bodies: 'Bodies',
  bed: 'Bed',
  dams: 'Dams, level bench',
  pour: 'Pour, with its material',
  'opened up': 'Opened up',
  surface: 'Surface',
  'looked over': 'Looked over',
  beside: 'Beside the steps',
};
