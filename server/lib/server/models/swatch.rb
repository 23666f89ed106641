# frozen_string_literal: true

require "fileutils"

module Server
  # A kept recipe with the picture it made, for shots of any
  # cut and project. Ten of them hang on pegs, the digit keys.
  class Swatch < Record
    PEGS = (0..9)
    LONGEST = {"name" => 80, "description" => 2000, "folder" => 200}.freeze

    LARGEST = [1920, 1080].freeze # pixels of its picture

    class << self
      # @param shot [Shot]
      # @param frame [Integer] record frame of its picture
      # @param values [Hash] some of name, description, folder, peg; a peg that is taken is given up by
      #   the swatch that had it
      # @return [Swatch]
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def keep(shot, frame:, values: {})
        raise Mordant::ParameterError.new(path: "frame", expected: "a frame of shot #{shot.name}", found: frame) unless (shot.record_in...(shot.record_in + shot.length)).cover?(frame)
        raise Mordant::ParameterError.new(path: "steps", expected: "a recipe with steps in it", found: "none") if shot.recipe.document["steps"].empty?

        add(png(shot, frame), {"name" => shot.name}.merge(values), document: shot.recipe.document, origin: origin(shot, frame), encoding: shot.cut.project.view.encoding)
      end

      # @param bytes [String] a swatch file, see Mordant::Grade::SwatchFile
      # @param folder [String, nil] to put it in; nil: the one it names
      # @param name [String] of the file, for errors
      # @return [Swatch]
      # @raise [Mordant::MediaError]
      def bring_in(bytes, folder: nil, name: "the file")
        found = Mordant::Grade::SwatchFile.read(bytes)
        encoding = Mordant::Colour.encoding(found.fetch("encoding", "rec709-bt1886")).id
        values = found.slice("name", "description", "folder").merge(folder ? {"folder" => folder} : {})
        add(bytes, values, document: found.slice(*Mordant::Grade::Recipe::KEYS), origin: found.fetch("origin", {}), encoding:)
      rescue Mordant::ParameterError, Mordant::UnknownIdError => e
        raise Mordant::MediaError.new(name, e.message)
      end

      def folder = File.join(Settings.library, "swatches")

      private

      def add(picture, values, **facts)
        transaction do
          swatch = new(**facts).tap { |one| one.take(values) }
          FileUtils.mkdir_p(folder)
          File.binwrite(swatch.file, picture)
          swatch
        end
      end

      def origin(shot, frame)
        {project: shot.cut.project.name, cut: shot.cut.name, shot: shot.name, version: shot.recipe.name,
         timecode: shot.cut.timecode(frame).to_s}
      end

      # The finished picture in the leading target's codes, 16 bits, no larger than LARGEST.
      def png(shot, frame)
        project, clip = shot.cut.project, shot.clip
        scale = [1.0, *LARGEST.zip([project.width, project.height]).map { |most, edge| most.fdiv(edge) }].min
        width, height = [project.width, project.height].map { |edge| (edge * scale).round }
        number = shot.place.source_at(frame)
        at = ->(away) { clip.reader.frame(number + away, width:, height:) if (0...clip.frames).cover?(number + away) }
        working = shot.cut.source_of(shot).plan_at(frame - shot.record_in).run(at[0], around: at)
        Mordant::Media::Png.encode(project.output.run(working), bits: 16, compression: 3)
      end
    end

    # @param values [Hash] some of name, description, folder, peg
    # @raise [Mordant::ParameterError]
    def take(values)
      texts = LONGEST.to_h { |key, longest| [key, text(key, values.fetch(key) { self[key] }, longest)] }
      number = values.fetch("peg") { peg }
      raise Mordant::ParameterError.new(path: "peg", expected: "a digit or none", found: number) unless [nil, *PEGS].include?(number)

      transaction do
        Swatch.where(peg: number).where.not(id:).update_all(peg: nil) if number
        update!(**texts, peg: number)
      end
    end

    # @return [String] of its picture
    def file = File.join(self.class.folder, "#{id}.png")

    # @return [String] a file to take elsewhere
    # @raise [Mordant::MediaError]
    def packed
      raise Mordant::MediaError.new(name, "the picture of this swatch is not there any more") unless File.exist?(file)

      Mordant::Grade::SwatchFile.write(File.binread(file), {"name" => name, "description" => description, "folder" => folder, "origin" => origin, "encoding" => encoding, **document.slice(*Mordant::Grade::Recipe::KEYS)})
    end

    def forget
      destroy!
      FileUtils.rm_f(file)
    end

    def to_h = {id:, name:, description:, folder:, peg:, origin:, encoding:, document:}

    private

    def text(key, value, longest)
      fine = value.is_a?(String) && value.strip.length <= longest && (key != "name" || !value.strip.empty?)
      fine ? value.strip : raise(Mordant::ParameterError.new(path: key, expected: "at most #{longest} characters", found: value))
    end
  end
end
