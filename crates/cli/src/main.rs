//! The `metrosk` command.

mod archive;
mod documents;
mod serve;

use clap::{Parser, Subcommand};
use std::process::ExitCode;

/// Reading a picture takes a hundred megabytes for a moment: this allocator gives them back, the system's keeps them.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// From a sketch to a measured page.
///
/// A sketch is a diagram of where photos, mats, papers, strips, the title and the writing go. Metrosk fits it to your own
/// page or spread: with your page size, your prints, your margins, on your ruler.
#[derive(Parser)]
#[command(name = "metrosk", version)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Subcommand)]
enum Command {
    /// Fit a sketch to a page or spread and print the proposals.
    ///
    /// Reads a fit request (format metrosk-fit/1: the sketch, the target, the photos, pins) and prints the proposals
    /// (metrosk-proposals/1), best first, on standard output. A request that can't be met prints what stands in its way.
    /// A request that is not understood is one line on standard error and exit status 2.
    Fit {
        /// The request's file, or - for standard input.
        request: String,
    },
    /// Print what shows and what is cut of each piece of a layout.
    ///
    /// Reads a layout and its papers (metrosk-piecing/1) and prints what shows of each piece, what of it is cut, and what can come out
    /// of its hidden middle (metrosk-pieces/1). A request that is not understood is one line on standard error and exit status 2.
    Pieces {
        /// The request's file, or - for standard input.
        request: String,
    },
    /// Set words in the letters that are left.
    ///
    /// Reads a text and the letters there are (metrosk-words/1) and prints every way to set it, best first (metrosk-worded/1); or which
    /// letters lack, or how large the space would have to be.
    Words {
        /// The request; `-` reads standard input.
        request: String,
    },
    /// Check a layout before anything is glued.
    ///
    /// Reads a layout (metrosk-check/1) and prints what was found (metrosk-checked/1): empty paper that is shut in, with cures that were tried
    /// on the page, and edges that nearly agree.
    Check {
        /// The request; `-` reads standard input.
        request: String,
    },
    /// Plan the cuts that give all pieces.
    ///
    /// Reads what is to be cut from what (metrosk-cutjob/1) and prints which cuts to make (metrosk-cutplan/1): edge to edge, within the
    /// trimmer's reach, scraps first. What has no place is told, with why. A job that is not understood is one line on standard error and
    /// exit status 2.
    Cut {
        /// The job's file, or - for standard input.
        job: String,
    },
    /// Deal papers out over places and print who got which.
    ///
    /// Reads a deal (metrosk-deal/1: the places, the papers with their quantities, locks) and prints which paper goes where
    /// (metrosk-dealt/1): as few equal neighbours as can be, even counts, equal papers far apart. The same seed deals the same.
    /// A deal that is not understood is one line on standard error and exit status 2.
    Deal {
        /// The deal's file, or - for standard input.
        request: String,
    },
    /// Read a sketch from a picture and print it.
    ///
    /// The picture (PNG, JPEG or WebP) shows a page sketch: a diagram, a print, a scribble, a photo of one. What is printed is a
    /// sketch (metrosk-sketch/1), each block with how sure it is. A picture that can't be used is one line on standard error and
    /// exit status 2.
    Read {
        /// The picture's file, or - for standard input.
        picture: String,
        /// The page's size in the unit, width by height, as 12x12 or 8.5x11.
        #[arg(long, default_value = "12x12")]
        page: String,
        /// How many pages the sketch shows: 1, or 2 side by side.
        #[arg(long, default_value = "1")]
        pages: String,
        /// The unit of the sizes: in or mm.
        #[arg(long, default_value = "in")]
        unit: String,
    },
    /// Run the web application.
    ///
    /// Listens on this machine's own address unless people reach it over TLS (--public-url https://…, with a proxy in front).
    /// A server without people prints a link, once, to make its first lead.
    Serve(serve::Options),
    /// Write everything of a server into a new file, an open archive (zip of JSON).
    ///
    /// Pictures come along, pixels and all. The database is left as it is; a file that exists is left alone.
    Backup(archive::Archive),
    /// Put everything of a backup onto an empty database, and its pictures into an empty place.
    Restore(archive::Archive),
    /// Make a link with which a person sets a new password, once, within two days.
    PasswordLink {
        /// What she signs in with.
        account: String,
        #[command(flatten)]
        store: archive::Store,
    },
    /// Print the description of the HTTP API (OpenAPI).
    Openapi,
}

fn main() -> ExitCode {
    let done = match Arguments::parse().command {
        Command::Fit { request } => documents::fit(&request),
        Command::Pieces { request } => documents::pieces(&request),
        Command::Cut { job } => documents::cut(&job),
        Command::Check { request } => documents::check(&request),
        Command::Words { request } => documents::words(&request),
        Command::Deal { request } => documents::deal(&request),
        Command::Read {
            picture,
            page,
            pages,
            unit,
        } => documents::read(&picture, &page, &pages, &unit),
        Command::Serve(options) => serve::run(options),
        Command::Backup(archive) => archive::backup(&archive),
        Command::Restore(archive) => archive::restore(&archive),
        Command::PasswordLink { account, store } => archive::password_link(&account, &store),
        Command::Openapi => documents::print(&metrosk_server::openapi()),
    };
    match done {
        Ok(()) => ExitCode::SUCCESS,
        Err(error) => {
            // One line, whatever the error's own text holds.
            eprintln!(
                "metrosk: {}",
                format!("{error:#}").replace(['\n', '\r'], " ")
            );
            ExitCode::from(2)
        }
    }
}
