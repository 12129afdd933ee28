import { defineRoom } from '../../model/room';
import { builtChecks } from './recorded';

export const builtRoom = defineRoom('built', 'prove').withRules('built').withRecord(builtChecks);
