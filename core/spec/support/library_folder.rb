# frozen_string_literal: true

require "tmpdir"

# A person's library of its own for each example, empty; @folder is where it lies.
RSpec.shared_context "with a library" do
  around do |example|
    Dir.mktmpdir do |folder|
      @folder = folder
      Mordant::Library.root = folder
      FileUtils.mkdir_p([Mordant::Library.encodings, Mordant::Library.luts])
      example.run
    ensure
      Mordant::Library.root = nil
    end
  end
end
