package rueda.app.web;

import jakarta.servlet.AsyncContext;
import jakarta.servlet.AsyncEvent;
import jakarta.servlet.AsyncListener;
import jakarta.servlet.DispatcherType;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ReadListener;
import jakarta.servlet.ServletException;
import jakarta.servlet.ServletInputStream;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletRequestWrapper;
import jakarta.servlet.http.HttpServletResponse;
import java.io.BufferedReader;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import rueda.format.Text;

/**
 * Takes the body of a request in before anything else is done with it, by non-blocking reading (Jakarta Servlet 6.0, 3.7): a body that
 * arrives byte by byte holds no thread, however many of them there are. Bodies are bounded in time, in number and in memory; what is over
 * {@link Text#MOST_BYTES} is read and thrown away, so that its refusal reaches whoever sends it.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 5)
class WholeBodies extends OncePerRequestFilter {

    private static final String BODY = "rueda.body";
    /** Bodies that arrive at the same time. */
    private static final int MOST_ARRIVING = 1000;
    /** Bytes that are held of all bodies together. */
    private static final long MOST_HELD = 256L << 20;
    /** A body has so long to arrive, and so much longer for each MB, ms; never longer than the last. */
    private static final long TIME = 20_000;
    private static final long TIME_PER_MEGABYTE = 1_000;
    private static final long LONGEST = 60_000;

    private final AtomicInteger arriving = new AtomicInteger();
    private final AtomicLong held = new AtomicLong();

    @Override
    protected boolean shouldNotFilterAsyncDispatch() {
        return false;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain) throws ServletException, IOException {
        if (request.getAttribute(BODY) instanceof byte[] body) {
            chain.doFilter(new WithBody(request, body), response);
        } else if (request.getDispatcherType() != DispatcherType.REQUEST || request.getContentLengthLong() <= 0 && request.getHeader(HttpHeaders.TRANSFER_ENCODING) == null) {
            chain.doFilter(request, response);
        } else if (arriving.incrementAndGet() > MOST_ARRIVING) {
            arriving.decrementAndGet();
            response.setHeader(HttpHeaders.CONNECTION, "close");
            Problems.write(response, HttpStatus.SERVICE_UNAVAILABLE, "Busy", MOST_ARRIVING + " requests arrive at the same time. Nothing was done; try again in a moment.");
        } else {
            AsyncContext waiting = request.startAsync();
            waiting.setTimeout(Math.min(LONGEST, TIME + TIME_PER_MEGABYTE * Math.max(0, request.getContentLengthLong()) / (1 << 20)));
            Arriving body = new Arriving(waiting, request, response);
            waiting.addListener(body);
            request.getInputStream().setReadListener(body);
        }
    }

    /** One body, until the request that it belongs to has been answered. The container calls it from one thread at a time. */
    private final class Arriving implements ReadListener, AsyncListener {
        private final AsyncContext waiting;
        private final HttpServletRequest request;
        private final HttpServletResponse response;
        private final ServletInputStream input;
        private final boolean kept;
        private final byte[] part = new byte[8192];
        private ByteArrayOutputStream whole = new ByteArrayOutputStream();
        private long taken;
        private boolean over;
        private boolean answered;

        Arriving(AsyncContext waiting, HttpServletRequest request, HttpServletResponse response) throws IOException {
            this.waiting = waiting;
            this.request = request;
            this.response = response;
            this.input = request.getInputStream();
            long length = request.getContentLengthLong();
            kept = length >= 0 && length <= Text.MOST_BYTES;
        }

        @Override
        public synchronized void onDataAvailable() throws IOException {
            while (!over && input.isReady()) {
                int bytes = input.read(part);
                if (bytes < 0) {
                    return;
                }
                if (kept) {
                    taken += bytes;
                    if (held.addAndGet(bytes) > MOST_HELD) {
                        refuse(HttpStatus.SERVICE_UNAVAILABLE, "Busy", "Too many large files arrive at the same time. Nothing was done; try again in a moment.");
                        return;
                    }
                    whole.write(part, 0, bytes);
                }
            }
        }

        @Override
        public synchronized void onAllDataRead() {
            if (!over) {
                arrived();
                request.setAttribute(BODY, whole.toByteArray());
                whole = null;
                waiting.dispatch();
            }
        }

        @Override
        public synchronized void onError(Throwable gone) {
            if (!over) {
                arrived();
                answered();
                waiting.complete();
            }
        }

        private void arrived() {
            over = true;
            arriving.decrementAndGet();
        }

        private void answered() {
            if (!answered) {
                answered = true;
                held.addAndGet(-taken);
                whole = null;
            }
        }

        /** The rest of the body is not waited for: the connection ends with the answer. */
        private void refuse(HttpStatus status, String title, String detail) throws IOException {
            arrived();
            response.setHeader(HttpHeaders.CONNECTION, "close");
            Problems.write(response, status, title, detail);
            waiting.complete();
        }

        @Override
        public synchronized void onTimeout(AsyncEvent event) throws IOException {
            if (!over) {
                refuse(HttpStatus.REQUEST_TIMEOUT, "Too slow", "The body of this request did not arrive in time. Nothing of it was taken; send it again.");
            }
        }

        @Override
        public synchronized void onComplete(AsyncEvent event) {
            if (!over) {
                arrived();
            }
            answered();
        }

        @Override
        public void onError(AsyncEvent event) {
            onComplete(event);
        }

        /** A handler that answers later starts waiting anew; this still waits for the end of the request. */
        @Override
        public void onStartAsync(AsyncEvent event) {
            event.getAsyncContext().addListener(this);
        }
    }

    /** The request as handlers see it, with its body there at once. */
    private static final class WithBody extends HttpServletRequestWrapper {
        private final byte[] body;

        WithBody(HttpServletRequest request, byte[] body) {
            super(request);
            this.body = body;
        }

        @Override
        public ServletInputStream getInputStream() {
            ByteArrayInputStream bytes = new ByteArrayInputStream(body);
            return new ServletInputStream() {
                @Override
                public int read() {
                    return bytes.read();
                }

                @Override
                public int read(byte[] into, int offset, int length) {
                    return bytes.read(into, offset, length);
                }

                @Override
                public boolean isFinished() {
                    return bytes.available() == 0;
                }

                @Override
                public boolean isReady() {
                    return true;
                }

                @Override
                public void setReadListener(ReadListener listener) {
                    throw new IllegalStateException("the body is here already");
                }
            };
        }

        @Override
        public BufferedReader getReader() {
            String named = getCharacterEncoding();
            return new BufferedReader(new InputStreamReader(getInputStream(), named == null ? StandardCharsets.UTF_8 : Charset.forName(named)));
        }
    }
}
