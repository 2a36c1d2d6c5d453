/**
 * A bench made of physics instead of hardware: what is applied follows its set point as a bath, a
 * pump or a slide does, sensors follow with lag, hysteresis, drift and noise, and all of it is
 * asked over the same wire protocols as real instruments, on loopback only. The same seed and the
 * same steps of time give the same readings to the last bit.
 */
package nocking.bench.simulated;
