package rueda.app.web;

import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import rueda.format.UnreadableFile;
import rueda.machine.EntryFault;
import rueda.quantity.InvalidEntry;
import tools.jackson.core.JacksonException;

/** Errors as problem documents, RFC 9457, with the refused entries in {@code faults}. */
@RestControllerAdvice
class ProblemDocuments {

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
    ProblemDetail program(Refusals.ProgramHasFaults refused) {
        return problem(HttpStatus.CONFLICT, "Program has faults", refused.getMessage());
    }

    @ExceptionHandler
    ProblemDetail unreadable(HttpMessageNotReadableException refused) {
        String message = "The body is missing or is no JSON of this shape.";
        ProblemDetail problem = problem(HttpStatus.BAD_REQUEST, "Cannot be read", message);
        if (refused.getCause() instanceof JacksonException cause) {
            String field = cause instanceof tools.jackson.databind.DatabindException bound
                    ? "/" + String.join("/", bound.getPath().stream().map(r -> r.getPropertyName() == null ? Integer.toString(r.getIndex()) : r.getPropertyName()).toList())
                    : "/";
            problem.setDetail(message + " " + cause.getOriginalMessage());
            problem.setProperty("faults", List.of(new EntryFault(field, field.substring(field.lastIndexOf('/') + 1), "not readable", "a value of the right type", "correct it")));
        }
        return problem;
    }

    private static ProblemDetail problem(HttpStatus status, String title, String detail) {
        ProblemDetail problem = ProblemDetail.forStatusAndDetail(status, detail);
        problem.setTitle(title);
        return problem;
    }
}
