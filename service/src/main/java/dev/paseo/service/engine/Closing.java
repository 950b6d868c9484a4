package dev.paseo.service.engine;

import org.springframework.context.SmartLifecycle;
import org.springframework.stereotype.Component;

/**
 * Lets those who wait go before the web server is stopped, so that stopping takes no longer than the work under way.
 */
@Component
class Closing implements SmartLifecycle {

    private final Nudge nudge;
    private volatile boolean running;

    Closing(Nudge nudge) {
        this.nudge = nudge;
    }

    @Override
    public void start() {
        running = true;
    }

    @Override
    public void stop() {
        running = false;
        nudge.close();
    }

    @Override
    public boolean isRunning() {
        return running;
    }

    /** The last to be started, and so the first to be stopped. */
    @Override
    public int getPhase() {
        return Integer.MAX_VALUE;
    }
}
