import { z } from 'zod';
import { learnMean } from '../learn/estimate';
