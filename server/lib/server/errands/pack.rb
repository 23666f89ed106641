# frozen_string_literal: true

module Server
  module Errands
    # The looks of a cut as one file to take along; see LookPackage.
    class Pack
      # @param cut [Cut]
      # @param wish [Hash] size, formats, layers, per, and the id of a target or none
      # @raise [Mordant::ParameterError]
      def initialize(cut, wish)
        @looks = LookPackage.new(cut, **wish.symbolize_keys.except(:target), view: target(cut, wish["target"])&.view)
      end

      # Whoever asks for another has no use for one under way.
      def single? = true

      def count = @looks.count

      # @return [String] of the file
      def name = "#{@looks.name}.tar"

      # @yieldparam done [Integer] shots whose tables there are
      # @return [Hash]
      # @raise [Mordant::Error, SystemCallError]
      def call(errand, &report)
        path = Pack.file(errand)
        FileUtils.mkdir_p(Pack.folder)
        File.open("#{path}.part", "wb") { |file| Tar.write(file) { |tar| fill(tar, &report) } }
        File.rename("#{path}.part", path)
        {name:}
      ensure
        FileUtils.rm_f("#{path}.part")
      end

      class << self
        def folder = File.join(Settings.var, "packages")

        # @return [String] absolute
        def file(errand) = File.join(folder, "#{errand.id}.tar")

        def forget(errand) = FileUtils.rm_f(file(errand))
      end

      private

      def fill(tar)
        @looks.each_file do |path, bytes, done|
          yield done
          tar.add("#{@looks.name}/#{path}", bytes)
        end
      end

      def target(cut, id)
        targets = cut.project.views
        id && (targets.find { |one| one.id == id } || raise(Mordant::ParameterError.new(path: "target", expected: targets.map(&:id).join(", "), found: id)))
      end
    end
  end
end
