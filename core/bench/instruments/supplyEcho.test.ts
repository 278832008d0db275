import { describe, expect, it } from 'vitest';
import { AUTO } from './defaults.js';
import { SupplyEcho } from './supplyEcho.js';

describe('what a supply says back', () => {
  it('is an answer once for every command, in their order, however late', () => {
    const echo = new SupplyEcho();
    echo.told(false, 0);
    echo.told(true, 50);
    // still running when the commands were on their way
    expect(echo.of(true, 60)).toBe('under-way');
    expect(echo.of(false, 4000)).toBe('answer');
    expect(echo.of(true, 4010)).toBe('answer');
    expect(echo.of(false, 4020)).toBe('by-hand');
  });

  it('is a hand at the switch when nothing was commanded, or the command was never answered', () => {
    const echo = new SupplyEcho();
    expect(echo.of(true, 0)).toBe('by-hand');
    echo.told(false, 0);
    expect(echo.of(true, AUTO.echoS * 1000)).toBe('under-way');
    expect(echo.of(true, AUTO.echoS * 1000 + 1)).toBe('by-hand');
  });

  it('counts the same command told twice as one', () => {
    const echo = new SupplyEcho();
    echo.told(false, 0);
    echo.told(false, 10);
    expect(echo.of(false, 20)).toBe('answer');
    expect(echo.of(true, 30)).toBe('by-hand');
  });
});
