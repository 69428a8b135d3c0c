#pragma once

/// What a program sees to before it opens its first file.
namespace gorvet::files {

/// Sees that the descriptors 0, 1 and 2 are open: a program that was started with one of them closed would else open its files
/// there, and print into them. What stands in for a closed standard output refuses to be written.
void openStandardStreams();

} // namespace gorvet::files
