//! (written next)
