# frozen_string_literal: true

module Server
  class Assembly
    # Hands of the Assembly room as a request names them: what each does to the edit, and how the history calls it.
    class Hands
      ALL = %w[split join trim roll slip length move delete insert transition cross speed link].freeze

      # @param cut [Cut]
      # @param body [Hash] operation, one of ALL, shot or shots, and what else it takes
      def initialize(cut, body)
        @cut, @body = cut, body
        @operation = body["operation"]
        raise Mordant::ParameterError.new(path: "operation", expected: ALL.join(", "), found: @operation) unless ALL.include?(@operation)
      end

      # @return [Array<Shot>] that are new in the cut
      # @raise [Mordant::ParameterError, Undoable::Stale]
      def call
        measured = measured_shares # before anything is locked
        Assembly.change(@cut, words:, seen: @body["edition"], names:) do |edit|
          made = send(@operation, edit)
          @shortened = shortened(edit, made)
          measured ? made.mixed(measured) : made
        end
      end

      # @return [Array<String>] transitions that have lost their handles, in words
      def notes = @shortened || []

      private

      # What nobody asked for: a transition whose shot before has too few frames beyond its end now.
      def shortened(edit, made)
        return [] if %w[transition cross].include?(@operation)

        were = edit.shots.to_h { |shot| [shot.key, shot.dissolve] }
        made.shots.each_with_index.filter_map do |shot, index|
          next unless were.fetch(shot.key, 0) > shot.dissolve

          before = made.shots[index - 1] if index.positive?
          "#{shot.name}: its transition of #{frames(were[shot.key])} is #{shot.dissolve.zero? ? "a cut" : "#{shot.dissolve} long"} now#{", as #{before.name} has no more frames beyond its end" if before}"
        end
      end

      def frames(*counts) = "#{counts.join(" and ")} #{(counts.size == 1 && counts.first.abs == 1) ? "frame" : "frames"}"

      def words
        names = shots.map(&:name)
        about = (names.size > 2) ? "#{names.size} shots" : names.join(", ")
        case @operation
        when "split" then "cut at #{@cut.timecode(number("frame"))} split"
        when "trim" then "#{about} trimmed by #{frames(*[number("head", 0), number("tail", 0)].reject(&:zero?))}"
        when "roll" then "edit before #{about} moved by #{frames(number("by"))}"
        when "slip" then "#{about} slipped by #{frames(number("by"))}"
        when "length" then "#{about} #{frames(number("length"))} long"
        when "transition" then if number("length").zero?
                                 "cut before #{about}"
                               else
                                 "#{@body["wipe"] ? "wipe" : "dissolve"} of #{frames(number("length"))} before #{about}"
                               end
        when "cross" then "grades cross over #{frames(number("count"))} at #{@cut.timecode(number("first"))}"
        when "speed" then "#{about} at #{(real("speed") * 100).round(1)} %"
        when "insert" then "#{@body["attic"] ? about : clip.stem} put in"
        else "#{about} #{{"join" => "joined with the next", "move" => "moved", "delete" => @body["black"] ? "made black" : "taken out", "link" => "linked to #{clip.stem if @operation == "link"}"}.fetch(@operation)}"
        end
      end

      def names = (@operation == "link") ? {shot.id => {link: Slates::BY_HAND}} : {}

      def split(edit) = edit.split(number("frame"))

      def join(edit) = edit.join(shot.id)

      def trim(edit) = edit.trim(shot.id, head: number("head", 0), tail: number("tail", 0))

      def roll(edit) = edit.roll(shot.id, number("by"))

      def slip(edit) = edit.slip(shot.id, number("by"))

      def length(edit) = edit.resize(shot.id, number("length"))

      def move(edit) = edit.move(shots.map(&:id), before: before)

      def delete(edit) = edit.delete(shots.map(&:id), black: (black_place if @body["black"]))

      def transition(edit) = edit.transition(shot.id, number("length"), wipe: @body["wipe"] && number("wipe"), manner: manner || Mordant::Cut::Manner::PLAIN)

      def cross(edit) = edit.cross(number("first"), number("count")).then { |made| manner ? made.mixed(made.crossing(number("first")) => manner) : made }

      # How the transition goes, unless it is still to be measured.
      #
      # @return [Mordant::Cut::Manner, nil]
      def manner = (Mordant::Cut::Manner.new(@body["manner"]) if @body["manner"] && !measuring?)

      def measuring? = @body["manner"].is_a?(Hash) && @body["manner"]["curve"] == "measured" && !@body["manner"].key?("shares")

      # Of the transition that comes of it, where its mix is to be told from the picture.
      #
      # @return [Hash{Object => Mordant::Cut::Manner}, nil] by the key of the shot that it begins
      # @raise [Mordant::ParameterError, Mordant::MediaError]
      def measured_shares
        return unless measuring?

        made = send(@operation, Mordant::Cut::Edit.new(@cut.timeline.shots))
        key = (@operation == "cross") ? made.crossing(number("first")) : shot.id
        place = made.shots.find { |one| one.key == key }
        footage = Clip.includes(:media_root, :project).find(place.clip)
        crosses = Mordant::Cut::Timeline.new(made.shots).crossover?(key) && place.plain? && footage.ready?
        raise Mordant::ParameterError.new(path: "manner.curve", expected: "a dissolve that is in the picture of one clip, to measure its mix; choose straight or eased", found: place.name) unless crosses

        shares = Mordant::Cut::MixMeasure.shares(footage.reader, frames: footage.frames, first: place.source_in, count: place.dissolve)
        {key => Mordant::Cut::Manner.new(@body["manner"].merge("shares" => shares.map { |share| share.round(4) }))}
      end

      def speed(edit) = edit.retime(shot.id, real("speed"))

      # A clip whole or from frame to frame; or a shot of the attic, where nothing else is said.
      def insert(edit)
        return edit.insert(place_again, before:) if @body["attic"]

        clip.ready? || raise(Mordant::ParameterError.new(path: "clip", expected: "a clip that was taken in", found: clip.path))
        first, count = number("source_in", 0), @body["length"] ? number("length") : clip.frames - number("source_in", 0)
        edit.insert(Mordant::Cut::Timeline::Shot.new(key: [:new, :clip], name: clip.take || clip.stem, clip: clip.id, clip_frames: clip.frames, source_in: first, length: count), before:)
      end

      # By hand, from a frame of the clip, or from the one that has the timecode that is shown now.
      def link(edit)
        return edit.link(shot.id, clip: clip.id, frames: clip.frames, source_in: number("source_in")) if @body["source_in"]

        edit.link(shot.id, clip: clip.id, frames: clip.frames, source_in: Slates.frame_in(shot.clip, shot.source_in, clip))
      end

      def place_again
        one = @cut.attic.includes(:clip).find_by(id: number("attic")) || raise(Record::Missing, "there is no shot #{@body["attic"]} in the attic of this cut")
        one.place.with(dissolve: 0, wipe: nil)
      end

      def black_place = Clip.black(@cut.project).then { |clip| Mordant::Cut::Timeline::Shot.new(key: nil, name: Clip::BLACK, clip: clip.id, clip_frames: clip.frames, source_in: 0, length: 1) }

      # @return [Array<Shot>] that are named
      def shots
        @shots ||= begin
          wanted = @body["attic"] ? [number("attic")] : @body["shots"] || [@body["shot"]].compact
          raise Mordant::ParameterError.new(path: "shots", expected: "ids of shots", found: wanted) unless wanted.is_a?(Array) && wanted.all?(Integer)

          found = Shot.where(cut: @cut, id: wanted).includes(:clip).index_by(&:id)
          wanted.map { |id| found[id] || raise(Record::Missing, "there is no shot #{id} in this cut") }
        end
      end

      def shot = shots.first || raise(Mordant::ParameterError.new(path: "shot", expected: "a shot of the cut", found: nil))

      def clip = @clip ||= @cut.project.clips.find_by(id: number("clip")) || raise(Record::Missing, "there is no clip #{@body["clip"]} in this project")

      def before = @body["before"] && number("before")

      def number(name, otherwise = nil)
        value = @body.fetch(name, otherwise)
        value.is_a?(Integer) ? value : raise(Mordant::ParameterError.new(path: name, expected: "a whole number", found: value))
      end

      def real(name)
        value = @body[name]
        (value.is_a?(Numeric) && value.to_f.finite?) ? value.to_f : raise(Mordant::ParameterError.new(path: name, expected: "a number", found: value))
      end
    end
  end
end
