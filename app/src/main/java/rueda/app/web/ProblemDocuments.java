package rueda.app.web;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.apache.catalina.connector.ClientAbortException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.HttpMediaTypeNotAcceptableException;
import org.springframework.web.HttpMediaTypeNotSupportedException;
import org.springframework.web.HttpRequestMethodNotSupportedException;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.async.AsyncRequestNotUsableException;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.servlet.resource.NoResourceFoundException;
import rueda.app.json.StrictJson;
import rueda.app.storage.StorageFault;
import rueda.format.UnreadableFile;
import rueda.machine.EntryFault;
import rueda.quantity.InvalidEntry;
import tools.jackson.core.JacksonException;

/** Errors as problem documents, RFC 9457, with the refused entries in {@code faults}. */
@RestControllerAdvice
class ProblemDocuments {

    private static final Logger LOG = LoggerFactory.getLogger(ProblemDocuments.class);

    @ExceptionHandler
    ProblemDetail notFound(Refusals.NotFound refused) {
        return problem(HttpStatus.NOT_FOUND, "Not found", refused.getMessage());
    }

    @ExceptionHandler
    ProblemDetail entries(Refusals.RefusedEntries refused) {
        ProblemDetail problem = problem(HttpStatus.UNPROCESSABLE_CONTENT, "Entries refused", refused.getMessage());
        problem.setProperty("faults", refused.faults);
        return problem;
    }

    @ExceptionHandler
    ProblemDetail entry(InvalidEntry refused) {
        ProblemDetail problem = problem(HttpStatus.UNPROCESSABLE_CONTENT, "Entry refused", refused.getMessage());
        problem.setProperty("faults", List.of(new EntryFault(refused.field(), refused.field(), refused.value(), refused.allowed(), refused.mend())));
        return problem;
    }

    @ExceptionHandler
    ProblemDetail file(UnreadableFile refused) {
        ProblemDetail problem = problem(HttpStatus.UNPROCESSABLE_CONTENT, "File refused", refused.getMessage() + "; " + refused.mend() + ". Nothing of it was taken.");
        problem.setProperty("faults", List.of(new EntryFault("file", refused.place(), refused.value(), refused.allowed(), refused.mend())));
        return problem;
    }

    @ExceptionHandler
    ProblemDetail stored(Refusals.UnreadableDocument refused) {
        ProblemDetail problem = problem(HttpStatus.CONFLICT, "Cannot be opened", refused.getMessage());
        problem.setProperty("unreadableMachine", refused.machine);
        problem.setProperty("unreadableRevision", refused.revision);
        return problem;
    }

    @ExceptionHandler
    ProblemDetail conflict(Refusals.Conflict refused) {
        ProblemDetail problem = problem(HttpStatus.CONFLICT, "Saved by another page", refused.getMessage());
        problem.setProperty("currentRevision", refused.current);
        problem.setProperty("savedAt", refused.savedAt);
        return problem;
    }

    @ExceptionHandler
    ProblemDetail revision(Refusals.MissingRevision refused) {
        return problem(HttpStatus.PRECONDITION_REQUIRED, "Revision missing", refused.getMessage());
    }

    @ExceptionHandler
    ProblemDetail control(Refusals.ControlHeld refused) {
        return problem(HttpStatus.CONFLICT, "Control is taken", refused.getMessage());
    }

    @ExceptionHandler
    ProblemDetail busy(Refusals.TooMuchAtOnce refused) {
        return problem(HttpStatus.SERVICE_UNAVAILABLE, "Busy", refused.getMessage());
    }

    @ExceptionHandler
    ProblemDetail program(Refusals.ProgramHasFaults refused) {
        return problem(HttpStatus.CONFLICT, "Program has faults", refused.getMessage());
    }

    @ExceptionHandler
    ProblemDetail unreadable(HttpMessageNotReadableException refused) {
        if (!(refused.getCause() instanceof JacksonException cause)) {
            return problem(HttpStatus.BAD_REQUEST, "Cannot be read", "The body is missing or is no JSON of this shape.");
        }
        EntryFault fault = StrictJson.fault(cause);
        ProblemDetail problem = problem(HttpStatus.BAD_REQUEST, "Cannot be read", (fault.field().equals("/") ? fault.label() : fault.field()) + ": " + fault.value() + "; allowed: " + fault.allowed() + ".");
        problem.setProperty("faults", List.of(fault));
        return problem;
    }

    /** A number in the address that is none. */
    @ExceptionHandler
    ProblemDetail address(MethodArgumentTypeMismatchException refused) {
        boolean choice = refused.getRequiredType() != null && refused.getRequiredType().isEnum();
        String allowed = choice ? Arrays.stream(refused.getRequiredType().getEnumConstants()).map(c -> ((Enum<?>) c).name()).collect(Collectors.joining(", ")) : "a number";
        String value = String.valueOf(refused.getValue());
        String shown = value.length() > 60 ? value.substring(0, 60) + "…" : value;
        ProblemDetail problem = problem(HttpStatus.BAD_REQUEST, "Address refused", refused.getName() + " is " + shown + "; allowed: " + allowed + ".");
        problem.setProperty("faults", List.of(new EntryFault(refused.getName(), refused.getName(), shown, allowed, "correct the address")));
        return problem;
    }

    @ExceptionHandler
    ProblemDetail parameter(MissingServletRequestParameterException refused) {
        ProblemDetail problem = problem(HttpStatus.BAD_REQUEST, "Address incomplete", refused.getParameterName() + " is missing in the address.");
        problem.setProperty("faults", List.of(new EntryFault(refused.getParameterName(), refused.getParameterName(), "missing", "a value", "add it to the address")));
        return problem;
    }

    @ExceptionHandler
    ProblemDetail nowhere(NoResourceFoundException refused) {
        return problem(HttpStatus.NOT_FOUND, "Not found", "There is nothing at this address.");
    }

    @ExceptionHandler
    ResponseEntity<ProblemDetail> method(HttpRequestMethodNotSupportedException refused) {
        String allowed = refused.getSupportedHttpMethods() == null ? "" : refused.getSupportedHttpMethods().stream().map(HttpMethod::name).sorted().collect(Collectors.joining(", "));
        ProblemDetail problem = problem(HttpStatus.METHOD_NOT_ALLOWED, "Method refused", refused.getMethod() + " does nothing at this address; allowed: " + allowed + ".");
        return ResponseEntity.status(HttpStatus.METHOD_NOT_ALLOWED).header(HttpHeaders.ALLOW, allowed).body(problem);
    }

    @ExceptionHandler
    ProblemDetail kind(HttpMediaTypeNotSupportedException refused) {
        return problem(HttpStatus.UNSUPPORTED_MEDIA_TYPE, "Content type", "Content-Type is " + (refused.getContentType() == null ? "missing" : refused.getContentType()) + "; allowed here: "
                + refused.getSupportedMediaTypes().stream().map(Object::toString).filter(t -> !t.contains("*+") && !t.equals("*/*")).distinct().collect(Collectors.joining(", ")) + ".");
    }

    /** Whoever asks for another form of an answer gets the problem in JSON all the same. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> form(HttpMediaTypeNotAcceptableException refused) {
        return ResponseEntity.status(HttpStatus.NOT_ACCEPTABLE).contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(problem(HttpStatus.NOT_ACCEPTABLE, "Accept", "This address answers with JSON; allow application/json in Accept."));
    }

    /** The page is gone before its answer: nobody is told, and nothing is wrong. */
    @ExceptionHandler({AsyncRequestNotUsableException.class, ClientAbortException.class})
    void gone() {
        // There is no one to answer.
    }

    /** What no other handler knows. Errors too: a request that failed takes nothing else along. */
    @ExceptionHandler
    ResponseEntity<ProblemDetail> unexpected(Throwable failure) {
        if (failure instanceof ErrorResponse known) {
            HttpStatus status = HttpStatus.valueOf(known.getStatusCode().value());
            return ResponseEntity.status(status).contentType(MediaType.APPLICATION_PROBLEM_JSON).body(problem(status, status.getReasonPhrase(), "This request cannot be answered as it is."));
        }
        Optional<StorageFault> storage = StorageFault.of(failure);
        if (storage.isPresent()) {
            LOG.warn(storage.get().sentence());
            HttpStatus status = storage.get().noRoom() ? HttpStatus.INSUFFICIENT_STORAGE : HttpStatus.SERVICE_UNAVAILABLE;
            return ResponseEntity.status(status).contentType(MediaType.APPLICATION_PROBLEM_JSON).body(problem(status, storage.get().noRoom() ? "No room" : "Database", storage.get().sentence()));
        }
        LOG.error("A request failed.", failure);
        boolean large = failure instanceof OutOfMemoryError || failure.getCause() instanceof OutOfMemoryError;
        return ResponseEntity.internalServerError().contentType(MediaType.APPLICATION_PROBLEM_JSON).body(problem(HttpStatus.INTERNAL_SERVER_ERROR, "Rueda failed",
                large ? "This needs more memory than there is. Nothing was changed; ask for less." : "Rueda made a mistake with this request. Nothing was stored; the reason is in the server's output."));
    }

    private static ProblemDetail problem(HttpStatus status, String title, String detail) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, detail);
        problem.setTitle(title);
        return problem;
    }
}
