import { learnBench } from './learn';
learnBench(2);
