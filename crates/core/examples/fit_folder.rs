//! Fits every request of a folder: `fit_folder REQUESTS ANSWERS`, with the time that each took.

use metrosk_core::fit::{self, Request};
use std::{env, error::Error, fs, path::PathBuf, time::Instant};

fn main() -> Result<(), Box<dyn Error>> {
    let folders: Vec<PathBuf> = env::args().skip(1).map(PathBuf::from).collect();
    let [requests, answers] = &folders[..] else {
        return Err("two folders are needed: requests and answers".into());
    };
    fs::create_dir_all(answers)?;
    let mut paths: Vec<PathBuf> = fs::read_dir(requests)?
        .map(|e| e.map(|e| e.path()))
        .collect::<Result<_, _>>()?;
    paths.sort();
    for path in paths {
        let Some(name) = path.file_name() else {
            continue;
        };
        match Request::from_text(&fs::read_to_string(&path)?) {
            Ok(request) => {
                let start = Instant::now();
                let outcome = fit::fit(&request);
                println!(
                    "{:7.1} ms  {}",
                    start.elapsed().as_secs_f64() * 1e3,
                    name.to_string_lossy()
                );
                fs::write(
                    answers.join(name),
                    serde_json::to_string(&outcome.to_json(request.unit))?,
                )?;
            }
            Err(invalid) => println!("   refused  {}: {invalid}", name.to_string_lossy()),
        }
    }
    Ok(())
}
