import { defineRoom } from '../../model/step';
import { builtChecks } from './recorded';

export const builtRoom = defineRoom('built', 'prove').withRules('built').withRecord(builtChecks);
