# frozen_string_literal: true

require "vips"

# Of itself libvips keeps what its last operations made, a hundred of them, for those that come again. Ours are of other pixels each time,
# and of a large picture that is hundreds of megabytes.
Vips.cache_set_max(0)
