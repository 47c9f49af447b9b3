package rueda.app.live;

import io.swagger.v3.oas.annotations.Operation;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.http.HttpStatus;
import rueda.quantity.InvalidEntry;

/** Moving axes by hand: control is taken as a lease, renewed, and given back. */
@RestController
@RequestMapping("/api/machines/{id}/control")
class HandController {

    private final Benches benches;

    HandController(Benches benches) {
        this.benches = benches;
    }

    /** @param monitoringSeconds the axes ramp down when control is not renewed for so long, 0.2 to 10 s; 2 when left out */
    record TakeControl(Double monitoringSeconds) {
    }

    /** @param key what the holder shows with every order */
    record ControlTaken(String key, double monitoringSeconds) {
    }

    @Operation(summary = "Takes the control lease; the program is held")
    @PostMapping
    ControlTaken take(@PathVariable long id, @RequestBody TakeControl wanted) {
        double seconds = wanted.monitoringSeconds() == null ? 2 : wanted.monitoringSeconds();
        if (!ControlLease.allows(seconds)) {
            throw new InvalidEntry("monitoringSeconds", Double.toString(seconds), "0.2 to 10 s", "choose 2 s");
        }
        return new ControlTaken(benches.of(id).takeControl(seconds), seconds);
    }

    @Operation(summary = "Renews the lease; at least every monitoring time")
    @PostMapping("/{key}/renew")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void renew(@PathVariable long id, @PathVariable String key) {
        benches.of(id).renewControl(key);
    }

    @Operation(summary = "Gives control back: the axes ramp down and are disabled")
    @DeleteMapping("/{key}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void release(@PathVariable long id, @PathVariable String key) {
        benches.of(id).releaseControl(key);
    }

    /** What a person orders. */
    enum Order { ENABLE, DISABLE, JOG, STEP, GO_TO, HOME, STOP, RESET, OVERRIDE, TORQUE, FORCE, VOLTAGE, FORCE_CONTROL_BIT, FORCE_STATUS_BIT, RELEASE_FORCES, START_ENTRY, GO_ON, STEPWISE, FOLLOW, LET_GO, TRIM, RUN_SHAFT }

    /**
     * @param axis  name of the axis
     * @param order what to do
     * @param value JOG: −1 or 1; STEP and GO_TO: user units; OVERRIDE: 0.01 to 1; FORCE: 0 or 1, left out to release;
     *              TORQUE: % of rated torque, left out to take it from the analogue input; VOLTAGE: V at the analogue input;
     *              FORCE_CONTROL_BIT and FORCE_STATUS_BIT: number of the bit;
     *              START_ENTRY: number of an entry of the move list; STEPWISE: 1 to hold after each entry, 0 to run through;
     *              TRIM: −1 back, 1 forward, 0 to end; RUN_SHAFT: units/s of the shaft under the encoder that is followed, which is not Rueda's to stop on a machine
     * @param fast  JOG at the default speed instead of a tenth of it; FORCE_…_BIT: the level, left out to release
     * @param terminal FORCE: name of the input or output
     * @param speedLimit TORQUE: units/s; left out for the highest speed of the axis
     */
    record HandOrder(String axis, Order order, Double value, Boolean fast, String terminal, Double speedLimit) {
    }

    /** @param refusal why the order was not carried out, or null */
    record HandAnswer(String refusal) {
    }

    @Operation(summary = "Orders an axis to do something")
    @PostMapping("/{key}/orders")
    HandAnswer order(@PathVariable long id, @PathVariable String key, @RequestBody HandOrder order) {
        if (order.order() == null) {
            throw new InvalidEntry("order", "missing", "ENABLE, DISABLE, JOG, STEP, GO_TO, HOME, STOP, RESET, OVERRIDE, TORQUE, FORCE, VOLTAGE, FORCE_CONTROL_BIT, FORCE_STATUS_BIT, RELEASE_FORCES, START_ENTRY, GO_ON, STEPWISE, FOLLOW, LET_GO, TRIM or RUN_SHAFT", "say what to do");
        }
        boolean needsValue = switch (order.order()) {
            case JOG, STEP, GO_TO, OVERRIDE, VOLTAGE, FORCE_CONTROL_BIT, FORCE_STATUS_BIT, START_ENTRY, STEPWISE, TRIM, RUN_SHAFT -> true;
            default -> false;
        };
        if (needsValue && (order.value() == null || !Double.isFinite(order.value()))) {
            throw new InvalidEntry("value", "missing", "a number", "enter one");
        }
        return new HandAnswer(benches.of(id).handOrder(key, order));
    }
}
