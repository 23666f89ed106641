# frozen_string_literal: true

require_relative "spec_helper"
require "tmpdir"

RSpec.describe Server::Tar do
  it "keeps paths of every length and script, as tar itself unpacks them" do
    files = ["a.dpx", "b/#{"n" * 100}", "b/#{"n" * 101}", "c/#{"é" * 90}.dpx", "#{"d" * 120}/#{"e" * 90}", "#{"f/" * 120}g"].to_h { |path| [path, path * 7] }
    Dir.mktmpdir do |folder|
      packed = File.join(folder, "all.tar")
      File.open(packed, "wb") { |out| described_class.write(out) { |tar| files.each { |path, bytes| tar.add(path, bytes) } } }
      system("tar", "-xf", packed, "-C", folder, exception: true)
      FileUtils.rm(packed)
      found = Dir.glob("**/*", base: folder).select { |path| File.file?(File.join(folder, path)) }
      expect(found.to_h { |path| [path, File.read(File.join(folder, path))] }).to eq(files)
    end
  end
end
