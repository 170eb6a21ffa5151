//! The core's modules build on those before them only, in the order that `docs/ARCHITECTURE.md` tells: read off their `use` lines.

use std::fs;
use std::path::{Path, PathBuf};

/// From what everything stands on to what stands on everything.
const ORDER: [&str; 29] = [
    "cancel",
    "length",
    "document",
    "geometry",
    "laying",
    "sketch",
    "reading",
    "typefaces",
    "handwriting",
    "defaults",
    "notation",
    "photos",
    "letters",
    "stash",
    "layout",
    "fit",
    "placed_photos",
    "papers",
    "cutting",
    "words",
    "clusters",
    "checks",
    "building",
    "log",
    "hop",
    "calls",
    "calendar",
    "season",
    "plan",
];

/// Every file of a module, with its text.
fn files(folder: &Path) -> Vec<(PathBuf, String)> {
    let mut found = Vec::new();
    for entry in fs::read_dir(folder).expect("the folder is there") {
        let path = entry.expect("it can be read").path();
        if path.is_dir() {
            found.extend(files(&path));
        } else if path.extension().is_some_and(|e| e == "rs") {
            let text = fs::read_to_string(&path).expect("it is text");
            found.push((path, text));
        }
    }
    found
}

/// The modules that a file names as `crate::module`, whether in a `use` line or within the code; its tests may look anywhere.
fn named(text: &str) -> Vec<&str> {
    let code = text.split("#[cfg(test)]").next().unwrap_or_default();
    let lines = code.lines().filter(|l| !l.trim_start().starts_with("//"));
    let after = lines.flat_map(|l| l.split("crate::").skip(1));
    after
        .map(|rest| {
            rest.split(|c: char| !c.is_ascii_lowercase() && c != '_')
                .next()
                .unwrap_or_default()
        })
        .filter(|name| !name.is_empty())
        .collect()
}

#[test]
fn modules_build_on_those_before_them_only() {
    let source = Path::new(env!("CARGO_MANIFEST_DIR")).join("src");
    let rank = |name: &str| ORDER.iter().position(|m| *m == name);
    let (mut looked_at, mut wrong) = (0, Vec::new());
    for (path, text) in files(&source) {
        let inner = path.strip_prefix(&source).expect("it lies within");
        let module = inner
            .iter()
            .next()
            .expect("it has a name")
            .to_string_lossy();
        let module = module.trim_end_matches(".rs");
        if module == "lib" {
            continue;
        }
        let own = rank(module);
        assert!(
            own.is_some(),
            "{module} stands in no order: put it into this test's"
        );
        for other in named(&text) {
            looked_at += 1;
            if rank(other) > own {
                wrong.push(format!("{} uses {other}", inner.display()));
            }
        }
    }
    assert!(looked_at > 150, "only {looked_at} uses were found");
    assert!(wrong.is_empty(), "{wrong:#?}");
}

/// The modules of the fit that a file of it names, by `super::module` or `crate::fit::module`.
fn named_in_fit<'a>(text: &'a str, modules: &[String]) -> Vec<&'a str> {
    let code = text.split("#[cfg(test)]").next().unwrap_or_default();
    let lines = code.lines().filter(|l| !l.trim_start().starts_with("//"));
    let after = lines.flat_map(|l| {
        l.split("super::")
            .skip(1)
            .chain(l.split("crate::fit::").skip(1))
    });
    after
        .flat_map(|rest| {
            rest.split(|c: char| !c.is_ascii_lowercase() && c != '_')
                .take(1)
        })
        .filter(|name| modules.iter().any(|m| m == name))
        .collect()
}

#[test]
fn the_modules_of_the_fit_stand_in_no_circle() {
    let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("src/fit");
    let found = files(&folder);
    let module_of = |path: &Path| {
        let inner = path.strip_prefix(&folder).expect("it lies within");
        let first = inner.iter().next().expect("it has a name");
        first.to_string_lossy().trim_end_matches(".rs").to_owned()
    };
    let modules: Vec<String> = found.iter().map(|(path, _)| module_of(path)).collect();
    let mut uses: Vec<(String, String)> = Vec::new();
    for (path, text) in &found {
        let own = module_of(path);
        for other in named_in_fit(text, &modules) {
            if other != own {
                uses.push((own.clone(), other.to_owned()));
            }
        }
    }
    assert!(uses.len() > 60, "only {} uses were found", uses.len());
    // What uses nothing that is left goes, until nothing is left or a circle remains.
    let mut left: Vec<&String> = modules.iter().collect();
    loop {
        let (free, bound): (Vec<_>, Vec<_>) = left.iter().partition(|m| {
            !uses
                .iter()
                .any(|(from, to)| from == **m && left.contains(&to))
        });
        left = bound;
        if free.is_empty() {
            break;
        }
    }
    assert!(left.is_empty(), "a circle among {left:?}");
}
