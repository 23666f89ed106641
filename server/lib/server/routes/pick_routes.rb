# frozen_string_literal: true

module Server
  # Numbers solved from the picture, or from a patch of it that somebody points at.
  module PickRoutes
    AUTO_REDUCTION = 4
    NOISE_PLACES = [0.15, 0.5, 0.85].freeze # of a shot
    LEAST_PATCH = 16 # pixels

    def self.registered(app)
      # What temperature and tint make a patch grey.
      app.post "/api/shots/:id/neutral" do
        asked(Mordant::Steps::Balance) do |desk, wish, before, entry, body|
          answer(Mordant::Grade::NeutralPick.new(desk.patch(wish, region: body["region"]), before:, balance: entry.step).to_h)
        end
      end

      # A first Balance: white, black and cast, from the picture alone.
      app.post "/api/shots/:id/auto" do
        asked(Mordant::Steps::Balance) do |desk, wish, before, entry|
          answer(Mordant::Grade::AutoBalance.new(desk.incoming(wish).codes(AUTO_REDUCTION), before:, pivot: entry.step.pivot).to_h)
        end
      end

      # Where a patch stands on the axes of the curves of a step.
      app.post "/api/shots/:id/reading" do
        asked(Mordant::Steps::Curves) do |desk, wish, before, _, body|
          answer(Mordant::Grade::PatchReading.new(desk.patch(wish, region: body["region"]), before:).to_h)
        end
      end

      # How much noise a shot has, from some of its frames, or from a flat patch of one of them.
      app.post "/api/shots/:id/noise" do
        asked(Mordant::Steps::Noise) do |desk, wish, before, entry, body|
          answer(profile: noise_profile(desk, wish, before, entry.id, body["region"]).rows)
        end
      end

      # What a key of a step's matte becomes by a patch that is picked: "contributor", its id; "act", see Mordant::Matte::PICKS.
      app.post "/api/shots/:id/key" do
        asked do |desk, wish, _, entry, body|
          part = entry.matte&.parts&.find { |one| one.id == body["contributor"] }
          raise Mordant::ParameterError.new(path: "contributor", expected: "one of the step's matte", found: body["contributor"]) unless part

          acts = desk.acts(wish, entry.id, contributor: part.id)
          answer(parameters: part.contributor.after_pick(patch(acts, desk.moment(wish, "full"), part.id, body["region"]), body.fetch("act", "fresh"), wish.project.space))
        end
      end

      # Paths that were tracked in a cut.
      app.get "/api/cuts/:id/paths" do
        answer(Cut.fetch(params["id"]).paths.map(&:to_h))
      end

      app.helpers do
        # @param before [Mordant::Grade::Plan] of the steps before
        # @return [Mordant::Noise::Profile]
        def noise_profile(desk, wish, before, step, region)
          place = wish.cut.timeline.layers(wish.frame).last.shot
          frames = region ? [wish.frame] : NOISE_PLACES.map { |share| place.record_in + (share * (place.length - 1)).round }.uniq
          found = Mordant::Noise::Estimate.profile(frames.flat_map do |frame|
            there = wish.with(frame:)
            plan, moment = (frame == wish.frame) ? before : desk.plan(wish.project, there.recipe_of(wish.shot).before(step), desk.incoming(there).encoding), desk.moment(there, "full")
            Mordant::Noise::Estimate.windows(moment).map { |window| [Mordant::Noise.turned(plan.picture(moment.at(window)).rgb), window] }
          end)
          return found unless region

          whole = desk.moment(wish, "full")
          columns, rows = Mordant::Region.pixels(region, whole.width, whole.height)
          raise Mordant::ParameterError.new(path: "region", expected: "a patch of #{LEAST_PATCH} pixels or more across and down", found: "#{columns.size}x#{rows.size}") if [columns.size, rows.size].min < LEAST_PATCH

          part = before.picture(whole.at(Mordant::Grade::Window.new(left: columns.begin, top: rows.begin, width: columns.size, height: rows.size)))
          found.like(Mordant::Noise.turned(part.rgb), Mordant::Grade::Window.whole(part.width, part.height))
        end

        # What a key looks at in a part of a picture.
        #
        # @param region [Array<Float>] see Mordant::Region
        # @return [Numo::SFloat] [3, n]
        def patch(acts, moment, contributor, region)
          columns, rows = Mordant::Region.pixels(region, moment.width, moment.height)
          acts.seen(moment.at(Mordant::Grade::Window.new(left: columns.begin, top: rows.begin, width: columns.size, height: rows.size)), contributor)
        end

        # Reads what is asked of a step at a frame, in the picture's turn.
        #
        # @param kind [Class, nil] the step must be one
        # @raise [Mordant::ParameterError]
        def asked(kind = nil)
          shot = Shot.includes(:recipes, cut: :project, clip: :media_root).fetch(params["id"])
          body = body_json
          wish = wish(shot.cut, body)
          desk = Pictures::Desk.current
          desk.gate.pass(nil, 0) do
            feed = desk.incoming(wish)
            raise Mordant::ParameterError.new(path: "frame", expected: "a frame of shot #{shot.name}", found: wish.frame) unless feed.shot.id == shot.id

            recipe = wish.recipe_of(feed.shot)
            before = desk.plan(wish.project, recipe.before(body["step"]), feed.encoding)
            entry = recipe.entries.find { |one| one.id == body["step"] }
            raise Mordant::ParameterError.new(path: "step", expected: "a #{kind.label}", found: entry.name) unless kind.nil? || entry.step.is_a?(kind)

            yield desk, wish, before, entry, body
          end
        end
      end
    end
  end
end
