package rueda.drive;

import rueda.bus.ProcessDataLayout;

/** Objects of the dictionary travel as they are (IEC 61800-7-201). Not thread-safe. */
final class ObjectExchange implements CyclicExchange {

    private final ObjectDictionary dictionary;
    private final ProcessDataLayout outputs;
    private final ProcessDataLayout inputs;
    private final DriveObject[] outputObjects;
    private final DriveObject[] inputObjects;

    ObjectExchange(ObjectDictionary dictionary, ProcessDataLayout outputs, ProcessDataLayout inputs) {
        this.dictionary = dictionary;
        this.outputs = outputs;
        this.inputs = inputs;
        outputObjects = objects(outputs);
        inputObjects = objects(inputs);
    }

    private static DriveObject[] objects(ProcessDataLayout layout) {
        return layout.entries().stream().map(e -> DriveObject.find(e.object(), e.subIndex())).toArray(DriveObject[]::new);
    }

    @Override
    public void latch(byte[] image) {
        for (int i = 0; i < outputObjects.length; i++) {
            DriveObject object = outputObjects[i];
            if (object != null && object.writable()) {
                dictionary.set(object, outputs.read(image, i));
            }
        }
    }

    @Override
    public void sample(byte[] image) {
        for (int i = 0; i < inputObjects.length; i++) {
            if (inputObjects[i] != null) {
                inputs.write(image, i, dictionary.get(inputObjects[i]));
            }
        }
    }
}
