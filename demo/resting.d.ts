/** The voltage of each cell of the truck over the hours of its rest, without the meter's noise. */
export declare function restingCells(count: number): ((hours: number) => number)[];
