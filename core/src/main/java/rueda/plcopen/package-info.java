/**
 * Motion control function blocks of PLCopen, Technical Committee 2, Part 1 (version 2.0), and the axis behind them:
 * state diagram, power-up over controlword and statusword, setpoints for cyclic synchronous position.
 */
package rueda.plcopen;
