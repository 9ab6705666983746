//! How far the work is, on a terminal's standard error, once it takes longer than a moment.

use std::{
    io::{self, IsTerminal},
    sync::{
        Arc,
        mpsc::{self, RecvTimeoutError, Sender},
    },
    thread::{self, JoinHandle},
    time::{Duration, Instant},
};

use indicatif::{ProgressBar, ProgressStyle};
use uvlet_read::Progress;

/// What takes less needs no word.
const MOMENT: Duration = Duration::from_millis(500);
/// Time between two looks.
const PACE: Duration = Duration::from_millis(100);

/// Shows progress until it is dropped.
pub struct Watch(Option<(Sender<()>, JoinHandle<()>)>);

impl Watch {
    /// Watches over some work, if anybody can see it.
    pub fn over(progress: &Arc<Progress>) -> Self {
        if !io::stderr().is_terminal() {
            return Self(None);
        }
        let (ended, end) = mpsc::channel();
        let progress = Arc::clone(progress);
        let thread = thread::spawn(move || {
            let start = Instant::now();
            let still = |time| matches!(end.recv_timeout(time), Err(RecvTimeoutError::Timeout));
            if !still(MOMENT) {
                return;
            }
            let line = ProgressBar::new_spinner();
            if let Ok(style) = ProgressStyle::with_template("{spinner} {msg}") {
                line.set_style(style);
            }
            loop {
                line.set_message(said(&progress, start.elapsed()));
                line.tick();
                if !still(PACE) {
                    break;
                }
            }
            line.finish_and_clear();
        });
        Self(Some((ended, thread)))
    }
}

fn said(progress: &Progress, passed: Duration) -> String {
    let (done, all) = progress.parts();
    if done == all {
        return "Reading the build".to_owned();
    }
    let percent = u128::from(done) * 100 / u128::from(all.max(1));
    let left = match done {
        0 => String::new(),
        _ => {
            let left = passed.as_millis() * u128::from(all - done) / u128::from(done);
            format!(", about {} s left", left.div_ceil(1000))
        }
    };
    format!("Encoding files: {percent}%{left}")
}

impl Drop for Watch {
    fn drop(&mut self) {
        if let Some((ended, thread)) = self.0.take() {
            drop(ended);
            // A thread that only draws cannot fail the answer.
            let _ = thread.join();
        }
    }
}
