//! Names of events that only a person sets off.

/// In small letters, without what stands before them in attributes and properties.
const EVENTS: [&str; 24] = [
    "click",
    "dblclick",
    "doubleclick",
    "auxclick",
    "contextmenu",
    "submit",
    "input",
    "change",
    "keydown",
    "keyup",
    "keypress",
    "pointerdown",
    "pointerup",
    "mousedown",
    "mouseup",
    "touchstart",
    "touchend",
    "drop",
    "paste",
    "copy",
    "cut",
    "press",
    "tap",
    "beforeinput",
];

/// Of these, the ones that components also call with their first value.
const OF_ELEMENTS: [&str; 3] = ["input", "change", "beforeinput"];

/// Tells whether a person alone sets off the event that a listener is added for.
pub fn is_user_event(event: &str) -> bool {
    EVENTS.contains(&event)
}

/// The name of an element's attribute, if it is a handler of such an event: `onClick`, `onclick`,
/// `on:click`, `onClickCapture`.
pub fn user_event(name: &str) -> Option<String> {
    let event = name.strip_prefix("on")?.trim_start_matches([':', '-']).to_lowercase();
    let event = event.strip_suffix("capture").unwrap_or(&event);
    EVENTS.contains(&event).then(|| name.to_owned())
}

/// The same of what may be a component's property.
pub fn component_event(name: &str) -> Option<String> {
    user_event(name).filter(|name| {
        let name = name.to_lowercase();
        !OF_ELEMENTS.iter().any(|event| name.trim_start_matches("on").starts_with(event))
    })
}
