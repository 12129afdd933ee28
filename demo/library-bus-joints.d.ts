import { type BondItem, type Id, type JointItem } from '@torvek/core/document';
import type { StoryLine } from './story';
/** How the joints of demo A are made, how its bodies are bonded, and what the walks along them read. */
export declare const busJoints: Record<Id, JointItem>;
export declare const busBonds: Record<Id, BondItem>;
/** The modules’ posts are torqued, then read; then the lugs of the cables, the bars and the bonds. */
export declare const jointWalks: (modules: readonly Id[]) => StoryLine[];
