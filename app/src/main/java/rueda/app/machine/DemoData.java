package rueda.app.machine;

import org.springframework.boot.ApplicationArguments;
import org.springframework.boot.ApplicationRunner;
import org.springframework.stereotype.Component;

/** A new database starts with the cheese-wheel cell. */
@Component
class DemoData implements ApplicationRunner {

    private final MachineStore store;

    DemoData(MachineStore store) {
        this.store = store;
    }

    @Override
    public void run(ApplicationArguments arguments) {
        store.addDemoWhenEmpty();
    }
}
